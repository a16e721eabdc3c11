import { z } from 'zod';
import { PanelId, TreatmentId, UnitId } from './ids';
import { ScaleStep } from './trait';

/** How a session asks. */
export const panelKinds = {
  liking: 'liking, each on one written scale',
  attributes: 'several things, each on its own scale',
  ranking: 'ranking, from best to worst',
  pairs: 'pairs: which of two?',
  triangle: 'triangle: which of three is the odd one?',
  'duo-trio': 'duo-trio: which of two is like the first?',
} as const;
export type PanelKind = keyof typeof panelKinds;

/** Kinds that ask whether two samples can be told apart or which of them is chosen. */
export const asksTwo = (kind: PanelKind): kind is 'pairs' | 'triangle' | 'duo-trio' =>
  kind === 'pairs' || kind === 'triangle' || kind === 'duo-trio';
/** Kinds that score each sample on a scale. */
export const asksScores = (kind: PanelKind): kind is 'liking' | 'attributes' =>
  kind === 'liking' || kind === 'attributes';

/** What is judged. */
export const senses = ['taste', 'smell', 'crunch', 'look'] as const;

/** What lies before the taster. */
export const presentations = {
  cups: 'samples in cups',
  photos: 'photos',
  units: 'the units themselves, under cards with codes',
} as const;

/** Something scored on a written scale. */
export const PanelAttribute = z.object({
  name: z.string().trim().min(1, 'Name what is scored.').max(60),
  steps: z.array(ScaleStep).min(2, 'Two steps or more.').max(11, 'Up to 11 steps.'),
  /** whether more of it is better; null: neither */
  moreIsBetter: z.boolean().nullable(),
});
export type PanelAttribute = z.infer<typeof PanelAttribute>;

const Code = z.string().regex(/^[1-9]\d\d$/);

/** What is served in one go: all samples one after the other, or two or three to choose from. */
export const PanelSet = z.object({
  /** codes in the order they are served */
  cups: z.array(Code).min(2).max(24),
});
export type PanelSet = z.infer<typeof PanelSet>;

/**
 * A tasting or look session as tasters may know it: codes, scales and words. What is in which cup isn't in it; the
 * commitment is the SHA-256 of the key that says so, so that the key can't be another one afterwards.
 */
export const PanelSession = z.object({
  id: PanelId,
  name: z.string().trim().min(1, 'Name the session.').max(80, 'Up to 80 letters.'),
  kind: z.enum(Object.keys(panelKinds) as PanelKind[]),
  presented: z.enum(['cups', 'photos', 'units']),
  senses: z.array(z.enum(senses)).min(1, 'Say what is judged.'),
  /** the question of pairs and ranking in words */
  asked: z.string().trim().max(120),
  attributes: z.array(PanelAttribute).max(8, 'Up to eight.'),
  /** words to tick */
  words: z.array(z.string().trim().min(1).max(30)).max(24, 'Up to 24 words.'),
  tasters: z
    .array(
      z.object({
        name: z.string().trim().min(1, 'Name the taster, initials will do.').max(40),
        sets: z.array(PanelSet).min(1),
      }),
    )
    .min(1, 'One taster at least.')
    .max(60, 'Up to 60 tasters.'),
  /** asked at the end, before the reveal: which two are the same, which is which */
  guess: z.enum(['none', 'same', 'which']),
  /** what the host read and ticked before the start */
  cautions: z.array(z.string().max(400)),
  commitment: z.string().regex(/^[0-9a-f]{64}$/),
});
export type PanelSession = z.infer<typeof PanelSession>;

/** What a sample is: of which contender, from which units. */
export const PanelSample = z.object({
  treatmentId: TreatmentId,
  unitIds: z.array(UnitId).min(1),
  /** SHA-256 of the picture that is shown, in a look session on photos */
  photo: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .nullable(),
});
export type PanelSample = z.infer<typeof PanelSample>;

/** What is in which cup; kept apart from the log until the reveal. */
export const PanelKey = z.object({
  sessionId: PanelId,
  /** makes the commitment unguessable */
  salt: z.string().min(16).max(80),
  samples: z.array(PanelSample).min(1),
  /** sample of each code, counted from 0 */
  cups: z.array(z.object({ code: Code, sample: z.number().int().min(0) })),
});
export type PanelKey = z.infer<typeof PanelKey>;

/** Words people use of what they eat, to tick (practice); the list is the plan's to change. */
export const usualWords = [
  'mild',
  'strong',
  'crisp',
  'chewy',
  'juicy',
  'bitter',
  'sweet',
  'hot',
  'bland',
] as const;

/** Steps of liking, in five written ones (practice). */
export const usualLiking: PanelAttribute = {
  name: 'Liking',
  steps: [
    { value: 1, text: 'I won’t finish it' },
    { value: 2, text: 'I’d rather not' },
    { value: 3, text: 'neither good nor bad' },
    { value: 4, text: 'I like it' },
    { value: 5, text: 'I want more' },
  ],
  moreIsBetter: true,
};
