import type { Position } from '~core/model/plan';

/** A hand-held light meter, read at one position at a time. */
export interface LightMeter {
  name: string;
  unit: string;
  /** photon flux at a position, in `unit` */
  read: (at: Position) => Promise<number>;
}
