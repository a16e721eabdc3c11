import { z } from 'zod';

/**
 * How units are handed out over positions:
 * crd completely randomised · rcbd randomised complete blocks · latin Latin square (each treatment once in
 * every row and column of a square) · split main plots with settings, treatments randomised inside each ·
 * interleave A B C A B C …, systematic · hand placed by hand
 */
export const designKinds = ['crd', 'rcbd', 'latin', 'split', 'interleave', 'hand'] as const;
export type DesignKind = (typeof designKinds)[number];

export const designNames: Record<DesignKind, string> = {
  rcbd: 'random, in complete blocks',
  crd: 'completely random',
  latin: 'Latin square',
  split: 'split plots (machines, tanks)',
  interleave: 'interleaved, A B C A B C',
  hand: 'by hand',
};

/** How alike a balanced re-randomisation made the treatments' means of the gradient. */
export const Balance = z.object({
  /** layouts drawn, each from a seed of its own */
  candidates: z.number().int().min(1),
  /** largest difference between two treatments' mean readings, per cent of the grand mean */
  spreadPercent: z.number().min(0),
});
export type Balance = z.infer<typeof Balance>;

export const Design = z.object({
  kind: z.enum(designKinds),
  /** units of each treatment; for split plots, main plots of each setting */
  replicates: z.number().int().min(1).max(200),
  seed: z.number().int().min(0).max(0xffffffff),
  /** split plots: what the main plots are given (two lamps, two tanks …); may be empty */
  settings: z.array(z.string().trim().min(1).max(60)).max(12),
  /** null: the first draw was taken */
  balance: Balance.nullable(),
});
export type Design = z.infer<typeof Design>;

/** Units change places on a schedule instead of standing where chance put them. */
export const Rotation = z.object({
  everyDays: z.number('Every how many days?').int('Whole days.').min(1, 'At least 1.').max(365),
  /** inside each block, inside each area, or over all positions */
  within: z.enum(['block', 'area', 'all']),
});
export type Rotation = z.infer<typeof Rotation>;

export const blindings = ['open', 'scorer', 'feeder'] as const;
export type Blinding = (typeof blindings)[number];
export const blindingNames: Record<Blinding, string> = {
  open: 'open: names are shown',
  scorer: 'the scorer sees codes',
  feeder: 'scorer and feeder see codes',
};
