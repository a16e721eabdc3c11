/** What stands for a prediction where a trial was planned in one go and none was written. */
export const NOTHING_WRITTEN = 'Nothing was written down beforehand.';
