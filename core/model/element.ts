import { z } from 'zod';

/** Elements a nutrient solution is reckoned in, by chemical symbol; the first six are the main ones. */
export const elements = [
  'N',
  'P',
  'K',
  'Ca',
  'Mg',
  'S',
  'Fe',
  'Mn',
  'Zn',
  'Cu',
  'B',
  'Mo',
  'Cl',
  'Na',
  'Si',
] as const;
export const ElementSymbol = z.enum(elements);
export type ElementSymbol = z.infer<typeof ElementSymbol>;

export const mainElements = ['N', 'P', 'K', 'Ca', 'Mg', 'S'] as const;
export const microElements = ['Fe', 'Mn', 'Zn', 'Cu', 'B', 'Mo', 'Cl', 'Na', 'Si'] as const;
export const MicroElement = z.enum(microElements);
export type MicroElement = z.infer<typeof MicroElement>;
