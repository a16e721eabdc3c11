import { inOrderOfRecording } from '~core/log/resolve';
import type { TrialState } from '~core/log/state';
import { jarKey } from '~core/mixing/jars';
import type { Entry, EntryBody } from '~core/model/entry';
import type { Plan } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';

export interface LogLine {
  id: string;
  at: string;
  by: string;
  what: string;
  text: string;
  remark: string;
  /** still counts as it is written */
  standing: boolean;
  canTakeBack: boolean;
}

const readingNames = {
  ec: 'strength',
  ph: 'pH',
  temperature: 'temperature',
  humidity: 'humidity',
  light: 'light',
  tare: 'tare',
} as const;
const readingUnits = {
  ec: ' mS/cm',
  ph: '',
  temperature: ' °C',
  humidity: ' %',
  light: '',
  tare: ' g',
} as const;

const names: Record<Entry['kind'], string> = {
  measurement: 'Measured',
  weighing: 'Weighed',
  reading: 'Read',
  mix: 'Mixed',
  stock: 'Stock made',
  phDose: 'pH corrected',
  feed: 'Fed',
  photo: 'Photo',
  move: 'Moved',
  deviation: 'Deviation',
  death: 'Died',
  exclusion: 'Left out',
  note: 'Remark',
  taskDone: 'Done',
  seal: 'Sealed',
  reveal: 'Codes opened',
  correction: 'Correction',
};

const purposes = {
  feed: '',
  topUp: ', topped up',
  change: ', solution changed',
  flush: ', plain water',
} as const;

/** A seal is broken in Layout, if at all; codes that were seen can't be unseen. */
export const staysFor = (kind: string | undefined): boolean => kind === 'seal' || kind === 'reveal';

/** Every line of the log in words, newest first. */
export function logLines(
  plan: Plan,
  log: readonly Entry[],
  state: TrialState,
  codes: ReadonlyMap<string, string> = new Map(),
): LogLine[] {
  const code = (id: string | null) => plan.units.find((u) => u.id === id)?.code ?? 'the trial';
  const trait = (id: string) => plan.traits.find((t) => t.id === id);
  const round = (id: string | null) => plan.rounds.find((r) => r.id === id)?.name ?? '';
  // Under codes a product is called by its jar: A1, A2.
  const jar = (treatmentId: string, productId: string): string => {
    const named = plan.products.find((p) => p.id === productId)?.name;
    return named ?? codes.get(jarKey(treatmentId, productId)) ?? '';
  };
  const standingIds = new Set<string>(state.entries.map((e) => e.standsFrom));

  const say = (b: EntryBody): string => {
    switch (b.kind) {
      case 'measurement': {
        const t = trait(b.traitId);
        const sample = b.sample === null ? '' : `, sample ${b.sample}`;
        return `${code(b.unitId)} ${t?.name.toLowerCase() ?? ''} ${formatFigure(b.value, t?.decimals ?? 1)} ${t?.unit ?? ''}${sample} ${round(b.roundId)}`;
      }
      case 'weighing':
        return `${code(b.unitId)} ${formatFigure(b.grossG - b.tareG, 1)} g net (gross ${b.grossG}, tare ${b.tareG}${b.container ? `, ${b.container}` : ''}) by ${b.instrument}`;
      case 'reading':
        return `${readingNames[b.quantity]} of ${b.subject}: ${b.value}${readingUnits[b.quantity]}`;
      case 'move':
        return b.moves
          .map(
            (m) =>
              `${code(m.unitId)} to row ${m.to.row + 1}, place ${m.to.column + 1} of ${plan.areas.find((a) => a.id === m.to.areaId)?.name ?? '?'}`,
          )
          .join('; ');
      case 'deviation':
        return `${b.unitIds.map(code).join(', ')} ${b.text}`.trim();
      case 'death':
        return `${code(b.unitId)} ${b.cause}`;
      case 'exclusion':
        return `${code(b.unitId)}: ${b.reason}`;
      case 'note':
        return `${b.unitId ? `${code(b.unitId)}: ` : ''}${b.text}`;
      case 'seal':
        return `plan ${b.planSha256.slice(0, 16)}…`;
      case 'mix':
        return `batch ${b.batch}, ${b.volumeL} L${b.amounts.length > 0 ? `: ${b.amounts.map((a) => `${a.amount} ${a.unit} ${jar(b.treatmentId, a.productId)}${a.fromStock ? ` from stock ${a.fromStock}` : ''}`).join(', ')}` : ', nothing in it'}`;
      case 'stock':
        return `${b.batch}: ${b.amount} ${b.unit} in ${b.volumeL} L`;
      case 'phDose':
        return `${b.amountMl} mL ${b.agent} in ${b.volumeL} L, pH ${b.phBefore} to ${b.phAfter}`;
      case 'feed':
        return `${b.unitIds.map(code).join(', ')}: ${b.volumeLPerUnit} L each${b.batch ? ` of batch ${b.batch}` : ''}${purposes[b.purpose ?? 'feed']}`;
      case 'photo':
        return b.caption || b.file;
      case 'taskDone':
        return b.task;
      case 'reveal':
        return b.reason || 'names are shown from here on';
    }
  };
  const byId = new Map(log.map((e) => [e.id, e]));
  return inOrderOfRecording(log)
    .reverse()
    .map((e) => {
      const corrected = e.kind === 'correction' ? byId.get(e.supersedes) : undefined;
      const text =
        e.kind === 'correction'
          ? e.replacement
            ? say(e.replacement)
            : `taken back: ${corrected && corrected.kind !== 'correction' ? `${names[corrected.kind].toLowerCase()} ${say(corrected)}` : 'a correction'}`
          : say(e);
      const withdraws = e.kind === 'correction' && e.replacement === null;
      const standing = standingIds.has(e.id) || withdraws;
      return {
        id: e.id,
        at: e.at,
        by: e.by,
        what: names[e.kind],
        text,
        remark: e.kind === 'correction' ? e.reason : standing ? '' : 'replaced or taken back later',
        standing,
        canTakeBack:
          standing && !withdraws && !staysFor(e.kind === 'correction' ? e.replacement?.kind : e.kind),
      };
    });
}
