import { z } from 'zod';
import type { LoggerTable } from '~core/series/loggerFile';
import type { SeriesQuantity } from '~core/series/quantities';

/** What quantities a column can be, with the unit it is in where its heading doesn't say. */
export const quantityChoices = {
  temperature: { name: 'temperature', unit: '°C' },
  humidity: { name: 'humidity', unit: '%' },
  ppfd: { name: 'light (PPFD)', unit: 'µmol m⁻² s⁻¹' },
  lux: { name: 'light (lux)', unit: 'lux' },
  ec: { name: 'EC (strength)', unit: 'mS/cm' },
  ph: { name: 'pH', unit: '' },
  level: { name: 'water level', unit: 'cm' },
} as const satisfies Record<SeriesQuantity, { name: string; unit: string }>;
const quantities = Object.keys(quantityChoices) as SeriesQuantity[];

/** leave: not kept; asItIs: kept under its heading */
export type ColumnUse = SeriesQuantity | 'asItIs' | 'leave';

const Mapping = z.object({
  /** by heading */
  columns: z.record(z.string(), z.enum(['asItIs', 'leave', ...quantities])),
  /** of an area, or the bench */
  place: z.string().max(80),
  /** where the file's dates don't tell */
  order: z.enum(['dmy', 'mdy']).optional(),
});
type Mapping = z.infer<typeof Mapping>;
const Kept = z.record(z.string(), Mapping);

const KEY = 'palazzo-logger-mappings';
/** Files of one logger have the same headings. */
const signature = (names: readonly string[]): string => names.join('\u001f');

function all(): z.infer<typeof Kept> {
  try {
    const stored = Kept.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
    return stored.success ? stored.data : {};
  } catch {
    return {};
  }
}

/** How a file with these headings was read last time; undefined the first time. */
export const mappingFor = (names: readonly string[]): Mapping | undefined => all()[signature(names)];

/** Keeps how a file was read, for the next of the same logger. */
export function keepMapping(names: readonly string[], mapping: Mapping): void {
  localStorage.setItem(KEY, JSON.stringify({ ...all(), [signature(names)]: mapping }));
}

/** What a column is taken for: as kept, else as its heading tells. */
export const usesOf = (
  columns: LoggerTable['columns'],
  kept: Mapping | undefined,
): Record<string, ColumnUse> =>
  Object.fromEntries(columns.map((c) => [c.name, kept?.columns[c.name] ?? c.quantity ?? 'asItIs']));

/** The columns that are kept, each as what it was said to be. */
export const mapped = (
  columns: LoggerTable['columns'],
  uses: Readonly<Record<string, ColumnUse>>,
): LoggerTable['columns'] =>
  columns.flatMap((c): LoggerTable['columns'] => {
    const use = uses[c.name] ?? 'asItIs';
    if (use === 'leave') return [];
    if (use === 'asItIs') return [{ ...c, quantity: null }];
    return [{ ...c, quantity: use, unit: c.unit ?? quantityChoices[use].unit }];
  });
