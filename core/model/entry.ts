import { z } from 'zod';
import { EntryId, PackId, ProductId, RoundId, TraitId, TreatmentId, UnitId } from './ids';
import { AmountUnit } from './product';
import { Position } from './plan';

const text = z.string().trim().min(1, 'Write what happened.').max(2000);
const units = z.array(UnitId);

/** What an entry says. Every kind of event in a trial is one of these. */
const bodies = {
  /** a value of a trait, typed or read off */
  measurement: z.object({
    kind: z.literal('measurement'),
    unitId: UnitId,
    traitId: TraitId,
    roundId: RoundId.nullable(),
    /** sample within the unit, from 1; null when the unit is measured as a whole */
    sample: z.number().int().min(1).nullable(),
    value: z.number(),
    /** n of a k-of-n value where it isn't the trait's own n */
    outOf: z.number().int().min(1).optional(),
    /** days until something happened: it hadn't when last looked at */
    notYet: z.boolean().optional(),
  }),
  /** gross and tare in grams; net is their difference and isn't stored */
  weighing: z.object({
    kind: z.literal('weighing'),
    unitId: UnitId,
    traitId: TraitId,
    roundId: RoundId.nullable(),
    /** crop within the unit, from 1, where there are several; left out when the unit is weighed whole */
    sample: z.number().int().min(1).optional(),
    grossG: z.number().min(0, 'A weight isn’t negative.'),
    tareG: z.number().min(0, 'A tare isn’t negative.'),
    container: z.string().max(80),
    instrument: z.string().max(80),
    /** smallest step of the scale, g; null when typed without a scale */
    stepG: z.number().positive().nullable(),
    /** whether the scale called the reading steady; null when typed */
    steady: z.boolean().nullable(),
  }),
  /** a reading that isn't a trait: strength, pH, temperature, light at a position, the tare of a container */
  reading: z.object({
    kind: z.literal('reading'),
    quantity: z.enum(['ec', 'ph', 'temperature', 'humidity', 'light', 'tare']),
    /** mS/cm, pH, °C, %, µmol m⁻² s⁻¹, g in the order of `quantity` */
    value: z.number(),
    subject: z.string().max(80),
    unitId: UnitId.nullable(),
    treatmentId: TreatmentId.nullable(),
    instrument: z.string().max(80),
    /** the batch that was read */
    batch: z.string().max(40).optional(),
  }),
  mix: z.object({
    kind: z.literal('mix'),
    treatmentId: TreatmentId,
    batch: z.string().max(40),
    /** 0 for doses that are given as they are, without water */
    volumeL: z.number().min(0),
    amounts: z.array(
      z.object({
        productId: ProductId,
        /** what was measured out; of a stock solution, in mL, where `fromStock` says so */
        amount: z.number().min(0),
        unit: AmountUnit,
        /** what the recipe wanted, in `unit` */
        wanted: z.number().min(0).optional(),
        /** the pack it was taken from */
        packId: PackId.optional(),
        /** batch of the stock solution it was taken from */
        fromStock: z.string().max(40).optional(),
      }),
    ),
    /** day of the trial it was mixed for */
    day: z.number().int().optional(),
    /** smallest step of the scale it was weighed on, g */
    stepG: z.number().positive().optional(),
  }),
  /** a product dissolved ahead, to be measured out by the millilitre */
  stock: z.object({
    kind: z.literal('stock'),
    productId: ProductId,
    batch: z.string().min(1).max(40),
    amount: z.number().positive(),
    unit: AmountUnit,
    volumeL: z.number().positive(),
    packId: PackId.optional(),
  }),
  /** acid or alkali given to a solution, with the pH before and after: a titration */
  phDose: z.object({
    kind: z.literal('phDose'),
    unitId: UnitId.nullable(),
    treatmentId: TreatmentId.nullable(),
    batch: z.string().max(40),
    /** what was given, as its bottle is called */
    agent: z.string().trim().min(1, 'Name what was given.').max(80),
    amountMl: z.number('How much?').positive('More than 0 mL.'),
    volumeL: z.number('Into how much?').positive('More than 0 L.'),
    phBefore: z.number('pH before?').min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.'),
    phAfter: z.number('pH after?').min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.'),
  }),
  feed: z.object({
    kind: z.literal('feed'),
    unitIds: units,
    batch: z.string().max(40),
    volumeLPerUnit: z.number().min(0),
    /** left out: a feeding; `batch` is empty for plain water */
    purpose: z.enum(['feed', 'topUp', 'change', 'flush']).optional(),
    day: z.number().int().optional(),
  }),
  photo: z.object({
    kind: z.literal('photo'),
    unitId: UnitId.nullable(),
    file: z.string().max(200),
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
    caption: z.string().max(500),
  }),
  /** units that change place in one go; a swap moves two */
  move: z.object({
    kind: z.literal('move'),
    moves: z.array(z.object({ unitId: UnitId, to: Position })).min(1),
    reason: z.string().max(500),
  }),
  /** something that wasn't in the plan */
  deviation: z.object({ kind: z.literal('deviation'), unitIds: units, text }),
  death: z.object({
    kind: z.literal('death'),
    unitId: UnitId,
    sample: z.number().int().min(1).nullable(),
    cause: z.string().max(500),
  }),
  /** a unit left out of the findings, for one trait or (null) for all */
  exclusion: z.object({
    kind: z.literal('exclusion'),
    unitId: UnitId,
    traitId: TraitId.nullable(),
    reason: z.string().trim().min(1, 'Say why it is left out.').max(500),
  }),
  note: z.object({
    kind: z.literal('note'),
    unitId: UnitId.nullable(),
    text,
    /** the trait taken in words that this is the value of */
    traitId: TraitId.optional(),
    roundId: RoundId.optional(),
  }),
  taskDone: z.object({ kind: z.literal('taskDone'), task: z.string().min(1).max(200) }),
  /** the plan frozen: SHA-256 of its canonical JSON */
  seal: z.object({ kind: z.literal('seal'), planSha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  /** the blinding key opened */
  reveal: z.object({ kind: z.literal('reveal'), reason: z.string().max(500) }),
};

export const EntryBody = z.discriminatedUnion('kind', [
  bodies.measurement,
  bodies.weighing,
  bodies.reading,
  bodies.mix,
  bodies.stock,
  bodies.phDose,
  bodies.feed,
  bodies.photo,
  bodies.move,
  bodies.deviation,
  bodies.death,
  bodies.exclusion,
  bodies.note,
  bodies.taskDone,
  bodies.seal,
  bodies.reveal,
]);
export type EntryBody = z.infer<typeof EntryBody>;

/**
 * Puts right an earlier entry (or an earlier correction) without overwriting it. `replacement` stands in
 * its place; null takes it back: an entry then counts as never made, a correction as never applied.
 */
export const CorrectionBody = z.object({
  kind: z.literal('correction'),
  supersedes: EntryId,
  replacement: EntryBody.nullable(),
  reason: z.string().max(500),
});
export type CorrectionBody = z.infer<typeof CorrectionBody>;

const stamp = {
  id: EntryId,
  /** when it happened */
  at: z.iso.datetime({ offset: true }),
  /** when it was written down; decides which of two corrections is the newer */
  recordedAt: z.iso.datetime({ offset: true }),
  by: z.string().max(80),
};

const [first, ...rest] = [...Object.values(bodies), CorrectionBody].map((body) =>
  body.extend(stamp),
) as unknown as [z.ZodObject, ...z.ZodObject[]];

/** One line of the log. */
export type Entry = (EntryBody | CorrectionBody) & z.infer<z.ZodObject<typeof stamp>>;
export const Entry = z.discriminatedUnion('kind', [first, ...rest]) as unknown as z.ZodType<Entry>;

/** An entry of one kind, e.g. `EntryOf<'measurement'>`. */
export type EntryOf<K extends Entry['kind']> = Extract<Entry, { kind: K }>;
export type BodyOf<K extends EntryBody['kind']> = Extract<EntryBody, { kind: K }>;
