/** Names of tasks that are ticked off in the log. */
export const LABELS_TASK = 'labels printed';

/** The n-th turn of a rotation. */
export const turnTask = (number: number): string => `turn ${number}`;
