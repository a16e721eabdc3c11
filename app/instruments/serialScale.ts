import { type Result, err, ok } from '~core/model/result';
import { toGrams } from '~core/quantity/amount';
import type { Instrument, Reading } from './instrument';

/** As much of the browser's serial ports as is used here. */
export interface SerialPortLike {
  open: (options: { baudRate: number }) => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
  close: () => Promise<void>;
}
interface SerialLike {
  requestPort: () => Promise<SerialPortLike>;
}

const serial = (): SerialLike | null =>
  typeof navigator !== 'undefined' && 'serial' in navigator ? (navigator.serial as SerialLike) : null;

/** Whether this browser has serial ports here. */
export const hasSerial = (): boolean => serial() !== null;

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

/** Readings that have to agree before the pan has come to rest. */
const AT_REST = 4;

/** A scale on an open port, read line by line. */
export function scaleOnPort(port: SerialPortLike): Instrument {
  const heard = new Set<(reading: Reading) => void>();
  let recent: number[] = [];
  const take = (line: string) => {
    const read = gramsOfLine(line);
    if (!read) return;
    recent = [...recent, read.grams].slice(-AT_REST);
    const atRest =
      recent.length === AT_REST && Math.max(...recent) - Math.min(...recent) <= 10 ** -read.decimals + 1e-9;
    for (const tell of heard) tell({ values: { weight: read.grams }, atRest });
  };
  const run = async () => {
    const reader = port.readable?.getReader();
    if (!reader) return;
    const decoder = new TextDecoder();
    let rest = '';
    for (;;) {
      const { value, done } = await reader.read();
      if (done) break;
      const lines = (rest + decoder.decode(value, { stream: true })).split(/\r\n|\n|\r/);
      rest = lines.pop()!;
      lines.forEach(take);
    }
  };
  // A cable pulled out ends the stream: the last figure stays, and is never at rest.
  run().catch(() => undefined);
  return {
    name: 'scale on the cable',
    channels: [{ id: 'weight', name: 'weight', unit: 'g', decimals: 1 }],
    step: null,
    calibrations: [],
    listen: (onReading) => {
      heard.add(onReading);
      return () => heard.delete(onReading);
    },
  };
}

/** Asks which port, and opens a scale on it. @param baudRate as the scale is set, often 9600 */
export async function openSerialScale(baudRate = 9600): Promise<Result<Instrument, string>> {
  const ports = serial();
  if (!ports) return err('This browser gives no serial ports here.');
  try {
    const port = await ports.requestPort();
    await port.open({ baudRate });
    return ok(scaleOnPort(port));
  } catch (e) {
    const { name } = e as Error;
    return err(
      name === 'NotFoundError'
        ? 'No port was chosen.'
        : 'The port can’t be opened: is another program using it, or the cable loose?',
    );
  }
}
