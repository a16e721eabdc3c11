import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { encode } from 'fast-png';
import type { EntryBody } from '~core/log/entry';
import type { EntryId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { type Pixels, measureCanopy } from '~core/imaging/canopy';
import { drawPlants } from '~core/imaging/drawPlants';

export interface DemoPhoto {
  sha256: string;
  bytes: Uint8Array;
}

const SIZE = { width: 120, height: 90 };
const GROUND = [94, 74, 58] as const;

/** Without the opacity, which says nothing here. */
function opaque({ data, width, height }: Pixels): Uint8Array {
  const rgb = new Uint8Array(width * height * 3);
  for (let i = 0, k = 0; i < data.length; i += 4) {
    rgb[k++] = data[i]!;
    rgb[k++] = data[i + 1]!;
    rgb[k++] = data[i + 2]!;
  }
  return rgb;
}

interface Growing {
  /** days on which the trays are photographed */
  days: readonly number[];
  /** cover on a day by treatment, 0–1 */
  cover: (treatmentIndex: number, day: number) => number;
  leaf: (treatmentIndex: number) => readonly [number, number, number];
  /** photographed of each treatment on a day */
  each: (day: number) => number;
}

/** Pictures of trays as the simulated camera sees them, growing from day to day, with the cover measured on each. */
export function demoPhotos(
  plan: Plan,
  { days, cover, leaf, each }: Growing,
  dateOf: (day: number) => string,
  lineId: (n: number) => EntryId,
  firstLine: number,
): { photos: DemoPhoto[]; lines: { body: EntryBody; at: string }[] } {
  const photos: DemoPhoto[] = [];
  const lines: { body: EntryBody; at: string }[] = [];
  for (const day of days) {
    plan.treatments.forEach((t, index) => {
      const units = plan.units.filter((u) => u.treatmentId === t.id).slice(0, each(day));
      units.forEach((unit, k) => {
        const seed = 1000 * day + 10 * index + k;
        const picture = drawPlants({
          ...SIZE,
          cover: Math.min(0.96, cover(index, day) * (1 + 0.06 * (k === 0 ? -1 : 1))),
          leaf: leaf(index),
          ground: GROUND,
          seed,
        });
        const bytes = encode(
          { ...SIZE, data: opaque(picture), channels: 3, depth: 8 },
          { zlib: { level: 0 } },
        );
        const hash = bytesToHex(sha256(bytes));
        photos.push({ sha256: hash, bytes });
        const at = `${dateOf(day)}T09:${String(10 + index * 4 + k).padStart(2, '0')}:00Z`;
        const photoId = lineId(firstLine + lines.length);
        lines.push({
          at,
          body: {
            kind: 'photo',
            unitId: unit.id,
            file: `${unit.code}-day-${day}.png`,
            sha256: hash,
            thumbSha256: hash,
            caption: '',
            ...SIZE,
          },
        });
        const { coverPercent, darkGreenColourIndex, palePercent, brownPercent, threshold, rule } =
          measureCanopy(picture);
        lines.push({
          at,
          body: {
            ...{ kind: 'canopy', photoId, unitId: unit.id, areaCm2: null },
            ...{ coverPercent, darkGreenColourIndex, palePercent, brownPercent, threshold, rule },
          },
        });
      });
    });
  }
  return { photos, lines };
}
