import { z } from 'zod';

/** Ids are UUIDs of version 7 (RFC 9562): they sort by the time they were made. Each kind has its own type. */
const id = <T extends string>(brand: T) => z.string().min(1).max(80).brand(brand);

export const ProductId = id('Product');
export const PackId = id('Pack');
export const TrialId = id('Trial');
export const TreatmentId = id('Treatment');
export const AreaId = id('Area');
export const UnitId = id('Unit');
export const TraitId = id('Trait');
export const RoundId = id('Round');
export const EntryId = id('Entry');
export const PanelId = id('Panel');

export type ProductId = z.infer<typeof ProductId>;
export type PackId = z.infer<typeof PackId>;
export type TrialId = z.infer<typeof TrialId>;
export type TreatmentId = z.infer<typeof TreatmentId>;
export type AreaId = z.infer<typeof AreaId>;
export type UnitId = z.infer<typeof UnitId>;
export type TraitId = z.infer<typeof TraitId>;
export type RoundId = z.infer<typeof RoundId>;
export type EntryId = z.infer<typeof EntryId>;
export type PanelId = z.infer<typeof PanelId>;
