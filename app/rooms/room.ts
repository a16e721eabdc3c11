import type { AuditFinding } from '~core/fairness/audit';
import type { TrialState } from '~core/log/state';

/** What a room's progress is told by. */
export interface RoomContext {
  state: TrialState;
  /** YYYY-MM-DD where the reviewer is */
  today: string;
  reviewWritten: boolean;
  /** names are hidden: nobody can be told yet who came where */
  blind: boolean;
  /** findings of the fairness audit that are neither cured nor accepted */
  open: readonly AuditFinding[];
}

export interface RoomProgress {
  progress: 'none' | 'half' | 'full';
  /** a few characters at the right of the list of rooms: a count, what is due */
  howFar: string;
  /** what is missing, as a tooltip */
  hint: string;
}

/**
 * A room of a trial. Each is a folder with a `room.ts` that says this and a route module that bears the folder's
 * name; adding one touches no other file.
 */
export interface Room {
  /** its address within the trial */
  id: string;
  title: string;
  /** its step on the list of rooms, in the order of the work */
  order: number;
  progress: (context: RoomContext) => RoomProgress;
}
