import { z } from 'zod';
import { panelAnswer } from '~core/log/kinds/panelAnswer';
import { panelGuess } from '~core/log/kinds/panelGuess';
import { TreatmentId } from '~core/model/ids';
import { PanelSession } from '~core/model/panel';

/** What one taster needs, and no more: their own codes, the scales, the words. It travels in a link. */
export const TasterSheet = z.object({
  session: PanelSession.omit({ tasters: true, commitment: true, cautions: true }),
  /** counted from 0 */
  taster: z.number().int().min(0),
  name: z.string(),
  sets: PanelSession.shape.tasters.element.shape.sets,
  /** contenders to guess among; names only where the session asks which is which */
  contenders: z.array(z.object({ id: TreatmentId, name: z.string() })),
});
export type TasterSheet = z.infer<typeof TasterSheet>;

export type TasterAnswer = Omit<z.infer<typeof panelAnswer.body>, 'kind' | 'sessionId' | 'taster'>;
export type TasterGuess = Omit<z.infer<typeof panelGuess.body>, 'kind' | 'sessionId' | 'taster'>;

/** A taster's answers, as they come back from another phone. */
export const TasterReply = z.object({
  format: z.literal('palazzo-taster-1'),
  sessionId: z.string().max(80),
  taster: z.number().int().min(0).max(999),
  answers: z.array(panelAnswer.body.omit({ kind: true, sessionId: true, taster: true })).max(200),
  guess: panelGuess.body.omit({ kind: true, sessionId: true, taster: true }).nullable(),
});
export type TasterReply = z.infer<typeof TasterReply>;

/** The sheet of one taster. @param contenders of the trial as they are called, where they are to be guessed */
export function sheetOf(
  session: PanelSession,
  taster: number,
  contenders: readonly { id: TreatmentId; name: string }[],
): TasterSheet {
  const { tasters, commitment: _commitment, cautions: _cautions, ...rest } = session;
  const own = tasters[taster]!;
  return {
    session: rest,
    taster,
    name: own.name,
    sets: own.sets,
    contenders: session.guess === 'which' ? [...contenders] : [],
  };
}

const toBase64 = (bytes: Uint8Array) =>
  btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replace(/=+$/, '');
const fromBase64 = (text: string) =>
  Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0));

/** Anything small as text for a link or the clipboard. */
export const packed = (value: unknown): string => toBase64(new TextEncoder().encode(JSON.stringify(value)));

/** Largest text that is unpacked: a sheet of 24 cups has a tenth of it. */
const MOST = 200_000;

/** Reads what `packed` made; null for anything else. */
export function unpacked<T>(text: string, schema: z.ZodType<T>): T | null {
  if (text.length > MOST) return null;
  try {
    const read = schema.safeParse(JSON.parse(new TextDecoder().decode(fromBase64(text.trim()))));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** One screen of a taster's page. */
export type Screen =
  | { kind: 'cup'; set: number; code: string }
  | { kind: 'set'; set: number }
  | { kind: 'guess' };

/** The screens a taster goes through, one sample at a time. */
export function screensOf(sheet: TasterSheet): Screen[] {
  const { kind, guess, words } = sheet.session;
  const scored = kind === 'liking' || kind === 'attributes';
  // Where words are ticked, each sample has its screen before they are put in order.
  const eachCup = scored || (kind === 'ranking' && words.length > 0);
  return [
    ...sheet.sets.flatMap((s, set): Screen[] => [
      ...(eachCup ? s.cups.map((code): Screen => ({ kind: 'cup', set, code })) : []),
      ...(scored ? [] : [{ kind: 'set', set } as const]),
    ]),
    ...(guess === 'none' ? [] : [{ kind: 'guess' } as const]),
  ];
}

/** What was answered on a screen; undefined where nothing was yet. */
export const answerAt = (answers: readonly TasterAnswer[], at: Screen): TasterAnswer | undefined =>
  at.kind === 'guess'
    ? undefined
    : answers.find((a) => a.set === at.set && a.code === (at.kind === 'cup' ? at.code : null));
