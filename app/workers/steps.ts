export interface Progress {
  done: number;
  total: number;
}
export type Report = (progress: Progress) => void;

/** A finished task: its result, and whether it was ended before all was done. */
export interface Done<T> {
  result: T;
  stopped: boolean;
}

/** Long work that is done in short steps. */
export interface Steps<T> {
  total: number;
  done: () => number;
  /** does so much more. @returns whether all is done */
  step: (n: number) => boolean;
  result: () => T;
}

/** Tasks that are asked to end. */
const ended = new Set<string>();
/** Lets messages in, so that an end is heard. */
const nextTurn = () => new Promise<void>((done) => setTimeout(done));

/** Steps through long work in short bursts, reporting after each, until it is done or ended. */
export async function work<T>(id: string, task: Steps<T>, burst: number, report: Report): Promise<Done<T>> {
  let finished = false;
  while (!finished && !ended.has(id)) {
    finished = task.step(burst);
    report({ done: task.done(), total: task.total });
    await nextTurn();
  }
  ended.delete(id);
  return { result: task.result(), stopped: !finished };
}

/** Ends a task; what is done so far is its result. */
export const endTask = (id: string): void => {
  ended.add(id);
};
