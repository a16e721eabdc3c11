import type { Money } from '../quantity/money';

/** What stands in a cell: a value that knows its unit and decimals, or words. */
export type Cell =
  | { type: 'text'; text: string }
  | { type: 'figure'; value: number | null; decimals: number; unit?: string; signed?: boolean }
  | { type: 'interval'; low: number | null; high: number | null; decimals: number; unit?: string }
  | { type: 'p'; value: number | null }
  | { type: 'money'; money: Money | null }
  /** a treatment, with its place in the plan's order, which gives it its tile */
  | { type: 'treatment'; name: string; order: number; beneath?: string }
  | { type: 'rank'; rank: number | null; tied: boolean }
  /** a letter of the letter display */
  | { type: 'letter'; text: string }
  | { type: 'fault'; text: string };

export interface TableBlock {
  type: 'table';
  columns: { head: string; numeric: boolean }[];
  rows: { cells: Cell[]; strong?: boolean; title?: string }[];
}

/** A written document as plain blocks: drawn on the screen by one component, printed by renderers. */
export type Block =
  | { type: 'heading'; level: 1 | 2 | 3; text: string }
  | { type: 'paragraph'; text: string; tone?: 'lead' | 'small' | 'warning' }
  | { type: 'list'; items: string[]; tone?: 'warning' }
  | { type: 'note'; tone: 'good' | 'open' | 'bad' | 'plain'; title: string; text: string }
  | TableBlock
  | { type: 'figure'; id: string; alt: string; caption: string };

export const text = (words: string): Cell => ({ type: 'text', text: words });

export const column = (head: string): TableBlock['columns'][number] => ({ head, numeric: false });
export const numbers = (head: string): TableBlock['columns'][number] => ({ head, numeric: true });
