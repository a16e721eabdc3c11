import { readingsSha256 } from '~core/series/readingsHash';
import type { BodyOf } from '~core/log/entry';
import type { AreaId } from '~core/model/ids';
import { extentOf } from '~core/series/held';
import { wallText } from '~core/series/moment';
import { seededRandom } from '~core/stats/random';

/** A demo logger: what the log says of it, and its readings. */
export interface DemoSeries {
  body: BodyOf<'series'>;
  times: Float64Array;
  columns: Float64Array[];
}

const STEP_MS = 10 * 60_000;
const DAY_MS = 86_400_000;

/**
 * Readings every ten minutes of a shelf level: lamps from 6 to 22, warmer above, and one afternoon on which the sun
 * came in.
 */
export function demoSeries(
  id: string,
  name: string,
  areaId: AreaId,
  {
    startDate,
    days,
    warmerAtNight,
    hotDay,
    seed,
  }: { startDate: string; days: number; warmerAtNight: number; hotDay: number; seed: number },
): DemoSeries {
  const chance = seededRandom(seed);
  const start = Date.parse(`${startDate}T00:00:00Z`);
  const n = (days * DAY_MS) / STEP_MS;
  const times = Float64Array.from({ length: n }, (_, i) => start + i * STEP_MS);
  const hourOf = (ms: number) => (ms % DAY_MS) / 3_600_000;
  const round = (x: number, decimals: number) => Number(x.toFixed(decimals));
  const temperature = times.map((ms) => {
    const hour = hourOf(ms);
    const lamps = hour >= 6 && hour < 22;
    const day = Math.floor((ms - start) / DAY_MS);
    const sun = day === hotDay && hour > 12 && hour < 18 ? 9 * Math.sin(((hour - 12) / 6) * Math.PI) : 0;
    return round(
      (lamps ? 22 + Math.sin(((hour - 6) / 16) * Math.PI) * 1.6 : 18.4 + warmerAtNight) +
        sun +
        0.25 * chance.normal(),
      1,
    );
  });
  const humidity = temperature.map((t) =>
    round(Math.max(28, Math.min(88, 118 - 2.7 * t + 1.2 * chance.normal())), 1),
  );
  const light = times.map((ms) => {
    const hour = hourOf(ms);
    return hour >= 6 && hour < 22 ? Math.round(205 - 6 * warmerAtNight + 3 * chance.normal()) : 0;
  });
  const columns = [temperature, humidity, light];
  const named = [
    ['Temp (°C)', '°C', 'temperature'],
    ['RH (%)', '%', 'humidity'],
    ['PPFD (µmol/m²/s)', 'µmol m⁻² s⁻¹', 'ppfd'],
  ] as const;
  return {
    times,
    columns,
    body: {
      kind: 'series',
      seriesId: id,
      name,
      unitId: null,
      treatmentId: null,
      areaId,
      columns: named.map(([heading, unit, quantity], i) => {
        const { min, mean, max } = extentOf(columns[i]!)!;
        return { name: heading, unit, quantity, min, mean, max };
      }),
      from: `${wallText(times[0]!)}Z`,
      to: `${wallText(times.at(-1)!)}Z`,
      rows: n,
      sha256: readingsSha256(times, columns),
    },
  };
}
