import { vapourPressureDeficit } from '~core/series/air';
import {
  type Extent,
  type Gap,
  type Readings,
  dailyLightIntegral,
  extentOf,
  gapsOf,
  hoursOutside,
  readingsOf,
} from '~core/series/held';
import { type PlaceDifference, comparePlaces, thinned } from '~core/series/placesCompared';
import { type TrialState, ofKind } from '~core/log/state';
import { wallDay } from '~core/series/moment';
import { formatFigure } from '~core/quantity/format';
import { formatDay, temperatureUnit } from '~core/quantity/region';
import { celsius, temperatureShown, warmthShown } from '~core/quantity/temperature';
import { planIndex } from '~core/plan/planIndex';
import { readSeries } from '../../../store/bulk';

/** One quantity of one logger, worked out for the screen. */
export interface AirLine {
  key: string;
  /** where it was read; with the logger's name where several stood there */
  place: string;
  /** the place alone */
  where: string;
  logger: string;
  /** single readings of a hand-held instrument: points, not a line */
  byHand?: true;
  quantity: string;
  name: string;
  unit: string;
  extent: Extent;
  points: { x: number; y: number }[];
  /** hours outside the band; null without one */
  outside: number | null;
  light: { day: string; mol: number }[];
  /** stretches without readings, nothing is drawn across them */
  gaps: Gap[];
}

export interface AirDifference extends PlaceDifference {
  quantity: string;
  name: string;
  unit: string;
  a: string;
  b: string;
}

interface AirFile {
  entryId: string;
  name: string;
  place: string;
  rows: number;
  from: string;
  to: string;
  missing: boolean;
}

export interface AirData {
  files: AirFile[];
  lines: AirLine[];
  differences: AirDifference[];
}

/** Stretches a line is drawn with. */
const STRETCHES = 600;

export type Bands = ReadonlyMap<string, readonly [low: number | null, high: number | null]>;

/** Everything the air of a trial’s places did, as far as loggers wrote it. */
export async function airOf(state: TrialState, bands: Bands): Promise<AirData> {
  const series: { line: AirLine; readings: Readings }[] = [];
  const files: AirFile[] = [];
  for (const { body, standsFrom } of ofKind(state, 'series')) {
    const { times, columns } = await readSeries(body.seriesId, -Infinity, Infinity);
    const place = body.areaId
      ? (planIndex(state.plan).area(body.areaId)?.name ?? 'an area')
      : body.unitId
        ? (planIndex(state.plan).unit(body.unitId)?.code ?? 'a unit')
        : 'the bench';
    files.push({
      ...{ entryId: standsFrom, name: body.name, place, rows: body.rows, from: body.from, to: body.to },
      missing: times.length === 0,
    });
    if (times.length === 0) continue;
    const add = (key: string, quantity: string, name: string, unit: string, readings: Readings) => {
      const extent = extentOf(readings.values);
      if (!extent) return;
      const band = bands.get(quantity);
      const gaps = gapsOf(readings.times);
      series.push({
        readings,
        line: {
          ...{
            key: `${body.seriesId}/${key}`,
            place,
            where: place,
            logger: body.name,
            quantity,
            name,
            unit,
            extent,
          },
          gaps,
          points: broken(thinned(readings, STRETCHES), gaps),
          outside: band ? hoursOutside(readings, band[0], band[1]) : null,
          light: quantity === 'ppfd' ? dailyLightIntegral(readings) : [],
        },
      });
    };
    body.columns.forEach((c, i) => {
      const quantity = c.quantity ?? c.name;
      const warm = c.quantity === 'temperature';
      const unit = warm ? temperatureUnit() : c.unit;
      const values = warm ? columns[i]!.map((v) => temperatureShown(celsius(v, c.unit))) : columns[i]!;
      add(String(i), quantity, quantityName(quantity), unit, readingsOf(times, values));
    });
    const at = (quantity: string) => body.columns.findIndex((c) => c.quantity === quantity);
    const [t, h] = [at('temperature'), at('humidity')];
    if (t >= 0 && h >= 0) {
      const deficit = columns[t]!.map((v, i) =>
        vapourPressureDeficit(celsius(v, body.columns[t]!.unit), columns[h]![i]!),
      );
      add('vpd', 'vpd', quantityName('vpd'), 'kPa', readingsOf(times, deficit));
    }
  }
  namedApart(series.map((f) => f.line));
  series.push(...byHand(state));
  const differences = series.flatMap(({ line: a, readings }, i) =>
    series.slice(i + 1).flatMap(({ line: b, readings: others }) => {
      if (a.byHand || b.byHand || a.quantity !== b.quantity || a.unit !== b.unit || a.where === b.where)
        return [];
      const d = comparePlaces(readings, others);
      return d ? [{ ...d, quantity: a.quantity, name: a.name, unit: a.unit, a: a.place, b: b.place }] : [];
    }),
  );
  return { files, lines: series.map((f) => f.line), differences };
}

/** Several loggers at one place are told apart by their names, and by numbers where those are one too. */
function namedApart(lines: AirLine[]): void {
  for (const line of lines) {
    const beside = lines.filter((l) => l.where === line.where && l.quantity === line.quantity);
    if (beside.length < 2) continue;
    const alike = beside.filter((l) => l.logger === line.logger);
    const number = alike.length > 1 ? ` ${alike.indexOf(line) + 1}` : '';
    line.place = `${line.where}, ${line.logger}${number}`;
  }
}

/** Points with a break in every gap, so that nothing is drawn as measured that wasn't. */
const broken = (points: AirLine['points'], gaps: readonly Gap[]): AirLine['points'] =>
  [...points, ...gaps.map((g) => ({ x: (g.from + g.to) / 2, y: NaN }))].sort((a, b) => a.x - b.x);

/**
 * Gaps of a line in words; empty without any.
 * @example sayGaps(gaps) // 'nothing read for 33 h from 2026-03-04, 10:00'
 */
export const sayGaps = (gaps: readonly Gap[]): string =>
  gaps.length === 0
    ? ''
    : gaps.length > 3
      ? `nothing read in ${gaps.length} stretches, ${formatFigure(
          gaps.reduce((s, g) => s + g.hours, 0),
          0,
        )} h in all`
      : gaps
          .map(
            (g) =>
              `nothing read for ${formatFigure(g.hours, 0)} h from ${formatDay(wallDay(g.from))}, ${new Date(g.from).toISOString().slice(11, 16)}`,
          )
          .join('; ');

/** By which quantity of a logger a hand-held reading of air and light goes. */
const handQuantities = {
  temperature: ['temperature', '°C'],
  humidity: ['humidity', '%'],
  light: ['ppfd', 'µmol m⁻² s⁻¹'],
} as const;

/** Hand-held readings of the air and light of places, by the clock on the wall as loggers have it. */
function byHand(state: TrialState): { line: AirLine; readings: Readings }[] {
  const groups = new Map<
    string,
    { place: string; quantity: keyof typeof handQuantities; at: number[]; values: number[] }
  >();
  for (const { body, at, offsetMin } of ofKind(state, 'reading')) {
    const ofPlace = body.unitId === null && body.treatmentId === null;
    if (
      !ofPlace ||
      !isHandQuantity(body.quantity) ||
      (body.areaId === undefined && body.subject !== 'the bench')
    )
      continue;
    const place = body.areaId
      ? (planIndex(state.plan).area(body.areaId)?.name ?? body.subject)
      : body.subject;
    const key = `${place}/${body.quantity}`;
    const group = groups.get(key) ?? { place, quantity: body.quantity, at: [], values: [] };
    group.at.push(Date.parse(at) + (offsetMin ?? 0) * 60_000);
    group.values.push(body.value);
    groups.set(key, group);
  }
  return [...groups].flatMap(([key, { place, quantity, at, values }]) => {
    const [as, own] = handQuantities[quantity];
    const warm = quantity === 'temperature';
    const unit = warm ? temperatureUnit() : own;
    const readings = readingsOf(
      Float64Array.from(at),
      Float64Array.from(warm ? values.map(temperatureShown) : values),
    );
    const extent = extentOf(readings.values);
    if (!extent) return [];
    // What lay between two readings nobody saw: no hours outside a band, no sum of light.
    const line: AirLine = {
      ...{
        key: `hand/${key}`,
        place,
        where: place,
        logger: 'by hand',
        byHand: true,
        quantity: as,
        unit,
        extent,
      },
      name: quantityName(as),
      points: [...readings.times].map((x, i) => ({ x, y: readings.values[i]! })),
      outside: null,
      light: [],
      gaps: [],
    };
    return [{ line, readings }];
  });
}

const isHandQuantity = (q: string): q is keyof typeof handQuantities => q in handQuantities;

/** Where a quantity has no adjective of its own, “higher” doesn't say of what. */
const inItsName = (name: string) => ({ more: `higher in ${name}`, less: `lower in ${name}` });

/** What quantities are called, and the difference that is worth a word (practice). */
const known: Record<string, { name: string; worth: number; more: string; less: string }> = {
  temperature: { name: 'Temperature', worth: 0.3, more: 'warmer', less: 'colder' },
  humidity: { name: 'Humidity', worth: 2, more: 'moister', less: 'drier' },
  ppfd: { name: 'Light (PPFD)', worth: 5, more: 'brighter', less: 'darker' },
  lux: { name: 'Light', worth: 300, more: 'brighter', less: 'darker' },
  vpd: { name: 'Vapour-pressure deficit', worth: 0.1, ...inItsName('vapour-pressure deficit') },
  ec: { name: 'EC (strength)', worth: 0.1, more: 'stronger', less: 'weaker' },
  ph: { name: 'pH', worth: 0.2, ...inItsName('pH') },
  level: { name: 'Water level', worth: 0, ...inItsName('water level') },
};

/** A quantity’s name, whatever the logger’s heading. */
const quantityName = (quantity: string): string => known[quantity]?.name ?? quantity;

/**
 * One place against another in words; null where they were alike.
 * @example differenceWords(d) // 'Level 2 was 1.8 °C warmer at night than Level 1 (408 hours of both).'
 */
export function differenceWords(d: AirDifference): string | null {
  const { worth: least, more, less } = known[d.quantity] ?? { worth: 0, ...inItsName(d.quantity) };
  const worth = d.quantity === 'temperature' ? warmthShown(least) : least;
  // Said from the side that has more.
  const turned = (d.night ?? d.all) + (d.day ?? d.all) < 0;
  const [a, b, sign] = turned ? [d.b, d.a, -1] : [d.a, d.b, 1];
  const parts = (
    [
      ['by day', d.day],
      ['at night', d.night],
    ] as const
  ).flatMap(([when, value]) =>
    value === null || Math.abs(value) < worth
      ? []
      : [`${Number(Math.abs(value).toPrecision(2))} ${d.unit} ${value * sign < 0 ? less : more} ${when}`],
  );
  return parts.length === 0 ? null : `${a} was ${parts.join(' and ')} than ${b} (${d.hours} hours of both).`;
}
