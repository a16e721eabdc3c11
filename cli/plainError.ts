/** Something the person at the terminal can put right; shown as one line, without a stack. */
export class PlainError extends Error {}
