import { ok } from '~core/model/result';
import { toGrams } from '~core/quantity/amount';
import type { Driver, Instrument } from './instrument';
import {
  type LineFigures,
  NO_SERIAL,
  type SerialPortLike,
  hasSerial,
  instrumentOnPort,
  openPort,
} from './serialPort';

/**
 * One line a scale prints: a number and a unit, with whatever it writes around them. No maker's protocol.
 * @returns grams, and the decimals it was printed with; null where the line is something else
 * @example gramsOfLine('ST,GS,+  112.4 g') // { grams: 112.4, decimals: 1 }
 */
export function gramsOfLine(line: string): { grams: number; decimals: number } | null {
  const m = /([-+−]?)\s*(\d+(?:[.,](\d+))?)\s*(kg|g|oz|lb)\b/i.exec(line);
  if (!m) return null;
  const unit = m[4]!.toLowerCase() as 'kg' | 'g' | 'oz' | 'lb';
  const size = Number(m[2]!.replace(',', '.')) * (m[1] === '-' || m[1] === '−' ? -1 : 1);
  return {
    grams: toGrams(size, unit),
    decimals: unit === 'kg' ? Math.max(0, (m[3]?.length ?? 0) - 3) : (m[3]?.length ?? 0),
  };
}

/** A scale on an open port, read line by line. */
export const scaleOnPort = (port: SerialPortLike): Instrument =>
  instrumentOnPort(
    port,
    'scale on the cable',
    [{ id: 'weight', name: 'weight', unit: 'g', decimals: 1 }],
    (line): LineFigures => {
      const read = gramsOfLine(line);
      return read ? { weight: { value: read.grams, decimals: read.decimals } } : {};
    },
  );

export const serialScaleDriver: Driver = {
  id: 'serial-scale',
  name: 'A scale on the cable',
  measures: 'weight',
  simulated: false,
  unavailable: () => (hasSerial() ? null : NO_SERIAL),
  open: async () => {
    const port = await openPort();
    return port.ok ? ok(scaleOnPort(port.value)) : port;
  },
};
