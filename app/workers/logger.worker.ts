import { expose, transfer } from 'comlink';
import { type Result, ok } from '~core/model/result';
import { decodeText } from '~core/series/decodeText';
import { type LoggerError, type LoggerOptions, type LoggerTable, openLogger } from '~core/series/loggerFile';
import { type Done, type Report, endTask, work } from './steps';

/** Rows read between two reports. */
const BURST = 20_000;

const api = {
  /** Reads a logger's file in bursts, so that it can be stopped. */
  read: async (
    id: string,
    bytes: Uint8Array,
    options: LoggerOptions,
    report: Report,
  ): Promise<Result<Done<LoggerTable>, LoggerError>> => {
    const reading = openLogger(decodeText(bytes), options);
    if (!reading.ok) return reading;
    const { result, stopped } = await work(id, reading.value, BURST, report);
    if (!result.ok) return result;
    const { times, columns } = result.value;
    return transfer(ok({ result: result.value, stopped }), [
      times.buffer as ArrayBuffer,
      ...columns.map((c) => c.values.buffer as ArrayBuffer),
    ]);
  },
  end: endTask,
};

export type LoggerApi = typeof api;
expose(api);
