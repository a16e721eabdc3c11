/** An order being found by asking of two which is ahead: binary insertion, few questions for many things. */
export interface Pairwise {
  /** groups in order, best first; things of a group are alike */
  sorted: readonly (readonly string[])[];
  /** what is being put in, and between which groups it can still go */
  placing: { id: string; low: number; high: number } | null;
  waiting: readonly string[];
}

/** Which of two, or neither. */
export type PairAnswer = 'first' | 'second' | 'alike';

function next(sorted: Pairwise['sorted'], waiting: readonly string[]): Pairwise {
  const [id, ...rest] = waiting;
  return id === undefined
    ? { sorted, placing: null, waiting: [] }
    : { sorted, placing: { id, low: 0, high: sorted.length }, waiting: rest };
}

/** Begins with the things in any order. */
export const beginPairwise = (ids: readonly string[]): Pairwise =>
  next(ids[0] === undefined ? [] : [[ids[0]]], ids.slice(1));

const middle = ({ low, high }: { low: number; high: number }) => Math.floor((low + high) / 2);

/** The two to look at now: the new one, and one of the group it is held against; null when all have their place. */
export const pairToAsk = (p: Pairwise): [first: string, second: string] | null =>
  p.placing ? [p.placing.id, p.sorted[middle(p.placing)]![0]!] : null;

/** Takes an answer. @param answer of the pair asked: `first` is ahead, `second` is, or they are alike */
export function answerPair(p: Pairwise, answer: PairAnswer): Pairwise {
  if (!p.placing) return p;
  const { id } = p.placing;
  const at = middle(p.placing);
  if (answer === 'alike') {
    return next(
      p.sorted.map((g, i) => (i === at ? [...g, id] : g)),
      p.waiting,
    );
  }
  const [low, high] = answer === 'first' ? [p.placing.low, at] : [at + 1, p.placing.high];
  if (low < high) return { ...p, placing: { id, low, high } };
  return next([...p.sorted.slice(0, low), [id], ...p.sorted.slice(low)], p.waiting);
}

/** Most questions that can still come. */
export function questionsLeft(p: Pairwise): number {
  const most = (groups: number) => Math.ceil(Math.log2(groups + 1));
  let groups = p.sorted.length;
  let left = p.placing ? Math.ceil(Math.log2(p.placing.high - p.placing.low + 1)) : 0;
  for (let i = 0; i < p.waiting.length; i++) left += most((groups += 1));
  return left;
}
