import { proxy } from 'comlink';
import type { Progress } from './steps';

export type OnProgress = (progress: Progress) => void;

/** Long work under way: its answer, and a way to end it early. */
export interface Task<T> {
  answer: Promise<T>;
  /** ends it; the answer is what is done so far */
  end: () => void;
}

let tasks = 0;

/** A task in a worker, with a name of its own. @param end tells the worker to end it */
export function taskOf<T>(
  onProgress: OnProgress,
  run: (id: string, report: OnProgress) => Promise<T>,
  end: (id: string) => void,
): Task<T> {
  tasks += 1;
  const id = `task ${tasks}`;
  let running = true;
  // A message that comes in after its result is dropped.
  const report = proxy((progress: Progress) => running && onProgress(progress)) as OnProgress;
  const answer = run(id, report).finally(() => {
    running = false;
  });
  return { answer, end: () => end(id) };
}
