import { type Result, err, ok } from '~core/model/result';
import type { Channel, Instrument, Reading } from './instrument';

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

export const NO_SERIAL = 'This browser gives no serial ports here.';
/** Whether this browser has serial ports here. */
export const hasSerial = (): boolean => serial() !== null;

/** What a line says: figures by channel, each with the decimals it was printed with; empty where it says none. */
export type LineFigures = Readonly<Record<string, { value: number; decimals: number }>>;

/** Ports that are read here: a port opens once, whoever asks for it next gets it from who has it. */
const inUse = new WeakMap<SerialPortLike, () => Promise<void>>();

/** Readings that have to agree before the instrument has come to rest. */
const AT_REST = 4;

/**
 * An instrument on an open port that prints figures line by line.
 * @param figuresOf what a line says; no maker’s protocol
 */
export function instrumentOnPort(
  port: SerialPortLike,
  name: string,
  channels: readonly Channel[],
  figuresOf: (line: string) => LineFigures,
): Instrument {
  const heard = new Set<(reading: Reading) => void>();
  const recent = new Map<string, { values: number[]; decimals: number }>();
  const rests = ({ values, decimals }: { values: number[]; decimals: number }) =>
    values.length === AT_REST && Math.max(...values) - Math.min(...values) <= 10 ** -decimals + 1e-9;
  const take = (line: string) => {
    const figures = Object.entries(figuresOf(line));
    if (figures.length === 0) return;
    for (const [id, { value, decimals }] of figures) {
      recent.set(id, { values: [...(recent.get(id)?.values ?? []), value].slice(-AT_REST), decimals });
    }
    const values = Object.fromEntries([...recent].map(([id, r]) => [id, r.values.at(-1)!]));
    const atRest = [...recent.values()].every(rests);
    for (const tell of heard) tell({ values, atRest });
  };
  const reader = port.readable?.getReader();
  const run = async () => {
    const decoder = new TextDecoder();
    let rest = '';
    for (;;) {
      const { value, done } = (await reader?.read()) ?? { value: undefined, done: true };
      if (done) break;
      const lines = (rest + decoder.decode(value, { stream: true })).split(/\r\n|\n|\r/);
      rest = lines.pop()!;
      lines.forEach(take);
    }
  };
  // A cable pulled out ends the stream: the last figure stays, and is never at rest.
  const over = run()
    .catch(() => undefined)
    .then(async () => {
      reader?.releaseLock();
      await port.close().catch(() => undefined);
    });
  const close = async () => {
    await reader?.cancel().catch(() => undefined);
    await over;
  };
  inUse.set(port, close);
  return {
    name,
    channels,
    step: null,
    calibrations: [],
    close,
    over,
    listen: (onReading) => {
      heard.add(onReading);
      return () => heard.delete(onReading);
    },
  };
}

/** Asks which port, and opens it. @param baudRate as the instrument is set, often 9600 */
export async function openPort(baudRate = 9600): Promise<Result<SerialPortLike, string>> {
  const ports = serial();
  if (!ports) return err(NO_SERIAL);
  try {
    const port = await ports.requestPort();
    await inUse.get(port)?.();
    await port.open({ baudRate });
    return ok(port);
  } catch (e) {
    const { name } = e as Error;
    return err(
      name === 'NotFoundError'
        ? 'No port was chosen.'
        : 'The port can’t be opened: is another program using it, or the cable loose?',
    );
  }
}
