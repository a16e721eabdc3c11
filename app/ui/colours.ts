/** Every colour of the interface, day and night: the one source for screen, canvas, print and exported pages. */
const day = {
  plaster: '#F5EFE4',
  sheet: '#FFFBF3',
  ink: '#2A241F',
  soft: '#5F564B',
  line: '#D8CCB8',
  warning: '#8A5A0A',
} as const;

/** Colours of a page that is exported: always the day's, for paper. */
export const pageColours = day;
