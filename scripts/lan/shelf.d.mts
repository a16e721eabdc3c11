import type { Shelf } from './letterBox.mjs';
export function shelf(folder?: string): Shelf;
