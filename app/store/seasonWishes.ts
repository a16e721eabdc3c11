import { bench } from './bench';

const KEY = 'season';

/** What was asked of the season on this bench, as it was typed; null: nothing yet. */
export async function seasonWishes(): Promise<unknown> {
  const row = await (await bench()).settings.get(KEY);
  return row ? (JSON.parse(row.value) as unknown) : null;
}

export async function keepSeasonWishes(wishes: object): Promise<void> {
  await (await bench()).settings.put({ key: KEY, value: JSON.stringify(wishes) });
}
