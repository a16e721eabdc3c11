/** What the room shows of a trait, in the order of its switch. */
export const views = [
  ['picture', 'The finding'],
  ['time', 'Over time'],
  ['factors', 'Factors and crops'],
  ['looks', 'Second looks'],
  ['traits', 'All traits'],
] as const;
export type View = (typeof views)[number][0];
