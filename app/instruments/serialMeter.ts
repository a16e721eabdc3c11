import { ecFromPpm } from '~core/mixing/strength';
import { ok } from '~core/model/result';
import type { Driver, Instrument } from './instrument';
import {
  type LineFigures,
  NO_SERIAL,
  type SerialPortLike,
  hasSerial,
  instrumentOnPort,
  openPort,
} from './serialPort';

const number = String.raw`([-+−]?\d+(?:[.,]\d+)?)`;
const strength = new RegExp(`${number}\\s*(mS|µS|uS|μS)(?:/cm)?\\b`, 'i');
const ppm = new RegExp(`${number}\\s*ppm\\b`, 'i');
const ph = new RegExp(`(?:\\bpH\\s*[:=]?\\s*${number})|(?:${number}\\s*pH\\b)`, 'i');
const warmth = new RegExp(`${number}\\s*°?\\s*([CF])\\b`);

const figure = (text: string): { value: number; decimals: number } => {
  const plain = text.replace(',', '.').replace('−', '-');
  return { value: Number(plain), decimals: plain.split('.')[1]?.length ?? 0 };
};

/**
 * One line a meter prints: figures with their units, in any order. No maker's protocol.
 *
 * Strength is kept as EC in mS/cm; ppm is taken on the scale of 500, the commonest (practice), since the line doesn't
 * say which.
 * @example figuresOfLine('EC 1.42 mS/cm; pH 6.12; 21.4 °C').ph // { value: 6.12, decimals: 2 }
 */
export function figuresOfLine(line: string): LineFigures {
  const out: Record<string, { value: number; decimals: number }> = {};
  const s = strength.exec(line);
  const p = ppm.exec(line);
  if (s) {
    const read = figure(s[1]!);
    const micro = !s[2]!.startsWith('m') && !s[2]!.startsWith('M');
    out.ec = micro ? { value: read.value / 1000, decimals: Math.min(3, read.decimals + 3) } : read;
  } else if (p) {
    out.ec = { value: ecFromPpm(figure(p[1]!).value, 500), decimals: 2 };
  }
  const acid = ph.exec(line);
  if (acid) out.ph = figure((acid[1] ?? acid[2])!);
  const warm = warmth.exec(line);
  if (warm) {
    const read = figure(warm[1]!);
    out.temperature =
      warm[2] === 'F' ? { value: ((read.value - 32) * 5) / 9, decimals: read.decimals } : read;
  }
  return out;
}

/** A meter for solutions on an open port, read line by line. */
export const meterOnPort = (port: SerialPortLike): Instrument =>
  instrumentOnPort(
    port,
    'meter on the cable',
    [
      { id: 'ec', name: 'EC', unit: 'mS/cm', decimals: 2 },
      { id: 'ph', name: 'pH', unit: '', decimals: 2 },
      { id: 'temperature', name: 'water', unit: '°C', decimals: 1 },
    ],
    figuresOfLine,
  );

export const serialMeterDriver: Driver = {
  id: 'serial-meter',
  name: 'A meter on the cable',
  measures: 'solution',
  simulated: false,
  unavailable: () => (hasSerial() ? null : NO_SERIAL),
  open: async () => {
    const port = await openPort();
    return port.ok ? ok(meterOnPort(port.value)) : port;
  },
};
