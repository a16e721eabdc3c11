/** Bands that growers use, by kind of crop. All common practice, from memory: the user's own come first. */
export const practiceBands = [
  { crop: 'seedlings and cuttings', ecLow: 0.5, ecHigh: 1, phLow: 5.5, phHigh: 6.5 },
  { crop: 'shoots on a sheet', ecLow: 0.5, ecHigh: 1.2, phLow: 5.5, phHigh: 6.8 },
  { crop: 'leaf and herbs in water', ecLow: 1, ecHigh: 1.8, phLow: 5.5, phHigh: 6.5 },
  { crop: 'fruiting crops in water', ecLow: 2, ecHigh: 3.5, phLow: 5.5, phHigh: 6.5 },
] as const;
export const PRACTICE_SOURCE = 'common practice';
