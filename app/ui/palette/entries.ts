import { benchPages } from '../benchPages';
import { listProducts } from '../../store/products';
import { listPlans, loadTrial } from '../../store/trials';

/** A room of the trial one is in: its address in it, and its name. */
export interface RoomOfTrial {
  room: string;
  name: string;
}

/** Something one can go to or do, by name. */
export interface PaletteEntry {
  group: 'Do' | 'This trial' | 'Units' | 'Bench' | 'Trials' | 'Products';
  label: string;
  to: string;
}

const acts: PaletteEntry[] = [
  { group: 'Do', label: 'Plan a trial', to: '/trials/new' },
  { group: 'Do', label: 'Add a product', to: '/library/new' },
  { group: 'Do', label: 'Save a backup', to: '/data' },
];

const bench: PaletteEntry[] = benchPages.map(({ name, to }) => ({ group: 'Bench', label: name, to }));

/**
 * Everything the bench has a name for: acts, rooms of the trial one is in, its units, trials, products. Contenders of a
 * blind trial aren't named.
 * @param trialId the trial one is in; null outside of one
 * @param rooms of that trial
 */
export async function paletteEntries(
  trialId: string | null,
  rooms: readonly RoomOfTrial[],
): Promise<PaletteEntry[]> {
  const [plans, products] = await Promise.all([listPlans(), listProducts()]);
  const here = trialId === null ? undefined : await loadTrial(trialId);
  const inTrial: PaletteEntry[] = here
    ? [
        ...rooms.map((r) => ({
          group: 'This trial' as const,
          label: r.name,
          to: `/trial/${here.row.id}/${r.room}`,
        })),
        { group: 'This trial', label: 'The log', to: `/trial/${here.row.id}/log` },
        ...here.shown.plan.units.map((u) => ({
          group: 'Units' as const,
          label: u.code,
          to: `/trial/${here.row.id}/rounds?unit=${u.code}`,
        })),
      ]
    : [];
  return [
    ...inTrial.filter((e) => e.group === 'This trial'),
    ...acts,
    ...bench,
    ...plans.map((p) => ({
      group: 'Trials' as const,
      label: `${p.question} (${p.code})`,
      to: `/trial/${p.id}`,
    })),
    ...products.map((p) => ({ group: 'Products' as const, label: p.name, to: `/library/${p.id}` })),
    ...inTrial.filter((e) => e.group === 'Units'),
  ];
}
