import type { PanelOutcome } from '~core/sensory/panelOutcome';
import type { PanelWords } from '~core/sensory/sayPanel';
import type { HeldSession } from '~core/sensory/sessions';

/** A session as the room shows it. */
export interface SessionShown {
  held: HeldSession;
  /** what is in the cups is known on this device */
  keyHere: boolean;
  /** null before the reveal */
  outcome: PanelOutcome | null;
  words: PanelWords | null;
}
