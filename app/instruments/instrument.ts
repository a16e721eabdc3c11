import type { Result } from '~core/model/result';
import type { Area, Position } from '~core/model/plan';

/** One figure an instrument gives. */
export interface Channel {
  id: string;
  name: string;
  unit: string;
  decimals: number;
}

/** What an instrument says at a moment, by channel. */
export interface Reading {
  values: Readonly<Record<string, number>>;
  /** the last readings agree: it has come to rest */
  atRest: boolean;
  /** what a code reader read */
  code?: string;
}

/** What is put before the sensor of a stand-in: figures by channel, or a position to hold it at. */
interface Presented {
  values?: Readonly<Record<string, number>>;
  /** a label, held before a camera or reader */
  code?: string;
  at?: Position;
}

/** A channel that is set against a standard. */
interface Calibration {
  channel: string;
  /** e.g. 1.413 mS/cm */
  standard: string;
  /** when it was last set; null: never */
  at: () => Date | null;
  set: () => void;
}

/** Anything that measures. Real drivers and simulated stand-ins look the same from outside. */
export interface Instrument {
  /** as the log names it */
  name: string;
  channels: readonly Channel[];
  /** smallest step of the first channel, in its unit; null: not said */
  step: number | null;
  /** Starts giving readings; the returned function stops them. */
  listen: (onReading: (reading: Reading) => void) => () => void;
  calibrations: readonly Calibration[];
  /** only of stand-ins: what the sensor meets */
  present?: (what: Presented) => void;
  /** a file it writes out, as loggers do */
  writesOut?: { name: string; file: () => [name: string, text: string] };
  /** of one that holds a port: lets go of it */
  close?: () => Promise<void>;
  /** of one that holds a port: over when it was let go, or the cable is out */
  over?: Promise<void>;
  /** of a camera or reader: shows its picture on a canvas; the returned function ends it */
  show?: (canvas: HTMLCanvasElement) => () => void;
}

export const measures = {
  weight: 'Scales',
  light: 'Light meters',
  solution: 'EC, pH and temperature meters',
  air: 'Thermo-hygrometers',
  picture: 'Cameras',
  code: 'Label readers',
} as const;
export type Measures = keyof typeof measures;

/**
 * A kind of instrument that can be connected. Adding one is adding a file in this folder and naming it in
 * `registry.ts`.
 */
export interface Driver {
  id: string;
  name: string;
  measures: Measures;
  /** a stand-in that ships with the app */
  simulated: boolean;
  /** why it can't be used in this browser; null when it can */
  unavailable: () => string | null;
  /** at once; left out where the browser asks the person first */
  connect?: (place: { areas: readonly Area[] }) => Instrument;
  /** asks which one, by a press of the person; says what was wrong */
  open?: () => Promise<Result<Instrument, string>>;
}

/** The next reading at rest, or the last one when it doesn't come to rest in time. */
export function readOnce(instrument: Instrument, what: Presented, patienceMs = 5000): Promise<Reading> {
  instrument.present?.(what);
  return new Promise((resolve) => {
    let last: Reading | null = null;
    const stop = instrument.listen((reading) => {
      last = reading;
      if (reading.atRest) end();
    });
    const timer = setTimeout(() => end(), patienceMs);
    const end = () => {
      if (last === null) return;
      clearTimeout(timer);
      stop();
      resolve(last);
    };
  });
}
