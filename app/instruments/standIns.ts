import { benchName } from '../store/bench';

const keyOf = (id: string) => `palazzo-stand-in/${id}`;

/** Whether the rooms show a stand-in: all on the demo's bench, on one's own only what was chosen under Instruments. */
export const standsIn = (id: string): boolean =>
  benchName() === 'demo' || localStorage.getItem(keyOf(id)) === 'chosen';

/** Lets a stand-in into the rooms of one's own bench, or out of them. */
export function letStandIn(id: string, chosen: boolean): void {
  if (chosen) localStorage.setItem(keyOf(id), 'chosen');
  else localStorage.removeItem(keyOf(id));
}
