import { z } from 'zod';
import { AreaId } from './ids';

export const areaKinds = ['shelf', 'tent', 'bench', 'bed', 'tank', 'lawn', 'greenhouse'] as const;
export type AreaKind = (typeof areaKinds)[number];

/** A position that no unit may take: nothing there, or a guard that isn't measured. */
export const ReservedCell = z.object({
  row: z.number().int().min(0),
  column: z.number().int().min(0),
  use: z.enum(['blocked', 'guard']),
});
export type ReservedCell = z.infer<typeof ReservedCell>;

/** A grid of positions seen from above; rows run away from the viewer, columns left to right. */
export const Area = z.object({
  id: AreaId,
  name: z.string().trim().min(1, 'Give the area a name.').max(80),
  kind: z.enum(areaKinds),
  rows: z.number('Whole rows.').int('Whole rows.').min(1, 'At least 1.').max(40, 'Up to 40.'),
  columns: z.number('Whole columns.').int('Whole columns.').min(1, 'At least 1.').max(40, 'Up to 40.'),
  widthCm: z.number().positive('More than 0 cm.').nullable(),
  depthCm: z.number().positive('More than 0 cm.').nullable(),
  reserved: z.array(ReservedCell),
});
export type Area = z.infer<typeof Area>;

export const Position = z.object({
  areaId: AreaId,
  /** 0 at the back (top of the drawing) */
  row: z.number().int().min(0),
  /** 0 at the left */
  column: z.number().int().min(0),
});
export type Position = z.infer<typeof Position>;

/** Readings of something that differs from place to place: light, most often. */
export const Gradient = z.object({
  name: z.string().trim().min(1, 'Say what was read.').max(60),
  unit: z.string().trim().max(30),
  readings: z.array(z.object({ position: Position, value: z.number() })),
});
export type Gradient = z.infer<typeof Gradient>;
