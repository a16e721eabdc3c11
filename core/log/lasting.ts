import type { Correction, Entry } from './entry';
import { compareWritten, insertionIndex } from './order';

/** Lines that give a value: what is sealed stays sealed once one was written under it. */
const values: ReadonlySet<Entry['kind']> = new Set(['measurement', 'weighing', 'pick', 'drying']);
/** Lines of a panel that stay from its reveal on. */
const ofPanels: ReadonlySet<Entry['kind']> = new Set(['panel', 'panelAnswer', 'panelGuess']);

const sessionOf = (line: Entry): string | null => {
  if (line.kind === 'panel') return line.session.id;
  return line.kind === 'panelAnswer' || line.kind === 'panelGuess' ? line.sessionId : null;
};

/**
 * What can't be undone, whoever writes that it was: not the app, and no file, letter or backup either. A seal under which
 * values were taken, codes and cups that were opened, and what a taster said before the cups were known. The same for any
 * order of the lines. Grows as lines are added.
 */
export class Lasting {
  private readonly seals: Entry[] = [];
  private readonly valued: Entry[] = [];
  private readonly withValues = new Set<string>();
  private readonly opened = new Map<string, Entry>();

  add(line: Entry): void {
    if (line.kind === 'seal') {
      this.seals.splice(insertionIndex(this.seals, line, compareWritten), 0, line);
      // A seal between two others takes values over from the one before.
      this.withValues.clear();
      for (const v of this.valued) this.under(v);
    } else if (values.has(line.kind)) {
      this.valued.push(line);
      this.under(line);
    } else if (line.kind === 'panelReveal') {
      const { sessionId } = line.key;
      const known = this.opened.get(sessionId);
      if (!known || compareWritten(line, known) < 0) this.opened.set(sessionId, line);
    }
  }

  /** The seal that stood when a value was written. */
  private under(value: Entry): void {
    const at = insertionIndex(this.seals, value, compareWritten);
    const seal = this.seals[at - 1];
    if (seal) this.withValues.add(seal.id);
  }

  hasValues(seal: string): boolean {
    return this.withValues.has(seal);
  }

  /**
   * Why a correction of a line doesn't count, in words; null where it does.
   * @param root the line that is put right, through any number of corrections
   * @param correction null: one that would be written now
   */
  whyNot(root: Entry, correction: Correction | null): string | null {
    if (root.kind === 'reveal' || root.kind === 'panelReveal')
      return 'What was opened can’t be closed again.';
    if (root.kind === 'seal')
      return this.withValues.has(root.id) ? 'Values were taken under this seal: it stays.' : null;
    if (!ofPanels.has(root.kind)) return null;
    const reveal = this.opened.get(sessionOf(root)!);
    return reveal && (correction === null || compareWritten(reveal, correction) < 0)
      ? 'The cups are known: what was said before stays.'
      : null;
  }

  /** Whether a line can be lasting at all: others are spared the question. */
  static may(root: Entry): boolean {
    return (
      root.kind === 'seal' || root.kind === 'reveal' || root.kind === 'panelReveal' || ofPanels.has(root.kind)
    );
  }
}
