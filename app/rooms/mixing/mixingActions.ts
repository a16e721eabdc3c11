import { z } from 'zod';
import { stocksLeft } from '~core/log/packs';
import type { EntryBody } from '~core/model/entry';
import { EntryId } from '~core/model/ids';
import type { TreatmentId, UnitId } from '~core/model/ids';
import { appendEntries, savePlan, undoPlan } from '../../store/trials';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { FeedForm, MixForm, PhForm, ReadingForm, StockForm } from './logForms';
import { MatchForm, applyMatch } from './matchForm';
import { SetUpForm, applySetUp } from './setUpForm';

const TakeBack = z.object({ intent: z.literal('takeBack'), ids: z.array(EntryId).min(1) });
const BringBack = z.object({ intent: z.literal('bringBack'), ids: z.array(EntryId).min(1) });
const Undo = z.object({ intent: z.literal('undo') });
const Intent = z.object({
  intent: z.enum([
    'mix',
    'stock',
    'feed',
    'reading',
    'phDose',
    'setUp',
    'match',
    'takeBack',
    'bringBack',
    'undo',
  ]),
});
const schemas = {
  mix: MixForm,
  stock: StockForm,
  feed: FeedForm,
  reading: ReadingForm,
  phDose: PhForm,
  setUp: SetUpForm,
  match: MatchForm,
  takeBack: TakeBack,
  bringBack: BringBack,
  undo: Undo,
} as const;

interface Readings {
  ec: number | null;
  ph: number | null;
  temperature: number | null;
  instrument: string;
}

/** One log line for each figure that was read. */
function readingBodies(
  f: Readings,
  of: { subject: string; unitId: UnitId | null; treatmentId: TreatmentId | null; batch?: string },
): EntryBody[] {
  return (['ec', 'ph', 'temperature'] as const).flatMap((quantity) => {
    const value = f[quantity];
    return value === null
      ? []
      : [{ kind: 'reading', quantity, value, instrument: f.instrument || 'typed', ...of } as const];
  });
}

const refusal = { batch: 'There is a batch of this name already.' };

async function mix(trialId: string | undefined, f: z.output<typeof MixForm>): Promise<ActionResult> {
  let known = false;
  let short: { path: string; message: string } | null = null;
  await appendEntries(trialId, ({ state }) => {
    known = state.entries.some((e) => e.body.kind === 'mix' && e.body.batch === f.batch);
    const stocks = stocksLeft(state.entries);
    f.lines.forEach((l, i) => {
      if (l.fromStock === null) return;
      const stock = stocks.find((s) => s.batch === l.fromStock);
      const wanted = l.actual ?? l.measured;
      if (!stock) {
        short = { path: `lines.${i}.actual`, message: `There is no stock ${l.fromStock}.` };
      } else if (wanted > stock.leftMl + 1e-9) {
        short = {
          path: `lines.${i}.actual`,
          message: `Stock ${stock.batch} has only ${Number(stock.leftMl.toFixed(1))} mL left.`,
        };
      }
    });
    if (known || short) return [];
    const amounts = f.lines.map((l) => ({
      productId: l.productId,
      amount: l.actual ?? l.measured,
      unit: l.unit,
      wanted: l.wanted,
      ...(l.packId && l.fromStock === null && { packId: l.packId }),
      ...(l.fromStock !== null && { fromStock: l.fromStock }),
    }));
    return [
      {
        kind: 'mix',
        treatmentId: f.treatmentId,
        batch: f.batch,
        volumeL: f.volumeL,
        day: f.day,
        amounts,
        ...(f.stepG !== null && { stepG: f.stepG }),
      },
      ...readingBodies(f, {
        subject: `batch ${f.batch}`,
        unitId: null,
        treatmentId: f.treatmentId,
        batch: f.batch,
      }),
    ];
  });
  if (known) return { errors: refusal };
  // Set inside the turn of the log, which TypeScript can't see.
  const lack = short as { path: string; message: string } | null;
  if (lack) return { errors: { [lack.path]: lack.message } };
  return { saved: true, message: `Batch ${f.batch} is in the log.` };
}

async function makeStock(trialId: string | undefined, f: z.output<typeof StockForm>): Promise<ActionResult> {
  let known = false;
  await appendEntries(trialId, ({ state }) => {
    known = state.entries.some((e) => e.body.kind === 'stock' && e.body.batch === f.batch);
    return known
      ? []
      : [
          {
            kind: 'stock',
            productId: f.productId,
            batch: f.batch,
            amount: f.amount,
            unit: f.unit,
            volumeL: f.volumeMl / 1000,
            ...(f.packId && { packId: f.packId }),
          },
        ];
  });
  return known ? { errors: refusal } : { saved: true, message: `Stock ${f.batch} is in the log.` };
}

/** Everything the Mixing room writes: to the log, or (before the seal) to the plan. */
export async function mixingAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const intent = Intent.safeParse(data);
  if (!intent.success) return { errors: { intent: 'There is no such thing to do here.' } };
  const parsed = schemas[intent.data.intent].safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const f = parsed.data;
  switch (f.intent) {
    case 'mix':
      return mix(trialId, f);
    case 'stock':
      return makeStock(trialId, f);
    case 'feed':
      await appendEntries(trialId, [
        {
          kind: 'feed',
          unitIds: f.unitIds,
          batch: f.batch,
          volumeLPerUnit: f.volume,
          purpose: f.purpose,
          ...(f.day !== null && { day: f.day }),
        },
      ]);
      return {
        saved: true,
        message: f.purpose === 'topUp' ? 'The top-up is in the log.' : 'The feeding is in the log.',
      };
    case 'reading':
      await appendEntries(
        trialId,
        readingBodies(f, { subject: f.subject, unitId: f.unitId, treatmentId: f.treatmentId }),
      );
      return { saved: true, message: 'The reading is in the log.' };
    case 'phDose': {
      const { intent: _, subject, ...body } = f;
      await appendEntries(trialId, [{ kind: 'phDose', batch: '', ...body }]);
      return { saved: true, message: `${subject}: the correction is in the log.` };
    }
    case 'takeBack':
      await appendEntries(
        trialId,
        f.ids.map((supersedes) => ({
          kind: 'correction',
          supersedes,
          replacement: null,
          reason: 'taken back',
        })),
      );
      return { saved: true, message: 'Taken back; the lines stay visible in the log.' };
    case 'bringBack':
      // A line stands again when the correction that took it back is itself taken back.
      await appendEntries(trialId, ({ log }) =>
        f.ids.flatMap((id) => {
          const taken = log.findLast((e) => e.kind === 'correction' && e.supersedes === id && !e.replacement);
          return taken
            ? [
                {
                  kind: 'correction',
                  supersedes: taken.id,
                  replacement: null,
                  reason: 'brought back',
                } as const,
              ]
            : [];
        }),
      );
      return { saved: true, message: 'It stands again.' };
    case 'undo':
      await undoPlan(trialId);
      return { saved: true, message: 'The last change of the plan is undone.' };
    default: {
      const saved = await savePlan(trialId, (plan) =>
        f.intent === 'setUp' ? applySetUp(plan, f) : applyMatch(plan, f),
      );
      if (!saved.ok) return { errors: { regimen: 'The plan is sealed.' } };
      return {
        saved: true,
        message: f.intent === 'setUp' ? 'The set-up is saved.' : 'The doses are in the plan.',
      };
    }
  }
}
