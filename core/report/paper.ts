/** Every colour of the day side and of paper: the one source for screen, canvas, print and exported pages. */
export const paper = {
  plaster: '#f5efe4',
  sheet: '#fffbf3',
  sunk: '#f0eadd',
  ink: '#2a241f',
  soft: '#5f564b',
  line: '#d8ccb8',
  terracotta: '#a4472a',
  verdigris: '#2f6f62',
  lapis: '#2c4a7a',
  ochre: '#b97a12',
  'ochre-text': '#8a5a0a',
  porphyry: '#7a2440',
  'tile-0': '#2f6f62',
  'tile-1': '#2c4a7a',
  'tile-2': '#a4472a',
  'tile-3': '#a86c0b',
  'tile-4': '#7a2440',
  'tile-5': '#5c661a',
  'tile-6': '#5b4b8a',
  'tile-7': '#6b4a2b',
} as const;

/** What pictures that are drawn without a screen are drawn in. */
export const paperInk = {
  ...paper,
  tiles: [0, 1, 2, 3, 4, 5, 6, 7].map((i) => paper[`tile-${i}` as keyof typeof paper]),
};

/** Colours of a page that is exported: always the day's, for paper. */
export const pageColours = { ...paper, warning: paper['ochre-text'] };
