import { z } from 'zod';
import { AreaId, TreatmentId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { temperatureUnit } from '../../quantity/region';
import { temperatureText } from '../../quantity/temperature';
import { entryKind } from './kind';

/** What is read, with its name in words and its unit. */
const readingQuantities = {
  ec: { name: 'strength', unit: ' mS/cm' },
  ph: { name: 'pH', unit: '' },
  temperature: { name: 'temperature', unit: ' °C' },
  humidity: { name: 'humidity', unit: ' %' },
  light: { name: 'light', unit: '' },
  tare: { name: 'tare', unit: ' g' },
} as const;

/** A reading that isn't a trait: strength, pH, temperature, light at a position, the tare of a container. */
export const reading = entryKind({
  body: z.object({
    kind: z.literal('reading'),
    quantity: z.enum(['ec', 'ph', 'temperature', 'humidity', 'light', 'tare']),
    /** mS/cm, pH, °C, %, µmol m⁻² s⁻¹, g in the order of `quantity` */
    value: z.number(),
    subject: z.string().max(80),
    unitId: UnitId.nullable(),
    treatmentId: TreatmentId.nullable(),
    /** of the air or light of a place: which area; left out: the bench, or a unit or bottle */
    areaId: AreaId.optional(),
    instrument: z.string().max(80),
    /** the batch that was read */
    batch: z.string().max(40).optional(),
  }),
  label: 'Read',
  right: 'score',
  describe: (b) =>
    `${readingQuantities[b.quantity].name} of ${b.subject}: ${
      b.quantity === 'temperature' && temperatureUnit() === '°F'
        ? temperatureText(b.value, 1)
        : `${b.value}${readingQuantities[b.quantity].unit}`
    }`,
  // A bottle's strength tells feed from water.
  underCodes: (b) =>
    b.treatmentId === null ? null : `${readingQuantities[b.quantity].name} of ${b.subject}`,
  takeBack: { allowed: true },
  table: {
    name: 'readings',
    title: 'EC (strength), pH, temperature, humidity, light and tares',
    rows: ({ id, at, body }, words) => [{ id, at, body, words }],
    columns: [
      ['subject', 'string', 'what was read', (r) => r.body.subject],
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      ['treatment', 'string', 'treatment', (r) => r.words.treatment(r.body.treatmentId) || null],
      [
        'quantity',
        'string!',
        'ec (mS/cm at 25 °C), ph, temperature (°C), humidity (%), light or tare (g)',
        (r) => r.body.quantity,
      ],
      ['value', 'number!', 'the reading', (r) => r.body.value],
      ['instrument', 'string', 'read with', (r) => r.body.instrument],
      [
        'area',
        'string',
        'area whose air or light it was',
        (r) => (r.body.areaId ? r.words.area(r.body.areaId) : null),
      ],
      ['batch', 'string', 'the batch that was read', (r) => r.body.batch ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string', 'unit', (r) => r.body.unitId],
      ['treatment_id', 'string', 'treatment', (r) => r.body.treatmentId],
    ],
  },
});
