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

/** The same by night, for screens alone. */
export const byNight: Record<keyof typeof paper, string> = {
  plaster: '#211b16',
  sheet: '#2b241e',
  sunk: '#332b24',
  ink: '#f1e8da',
  soft: '#bfb19c',
  line: '#4a4037',
  terracotta: '#e08a66',
  verdigris: '#7cc2b1',
  lapis: '#9db7e4',
  ochre: '#e5b457',
  'ochre-text': '#e5b457',
  porphyry: '#e79ab2',
  'tile-0': '#7cc2b1',
  'tile-1': '#9db7e4',
  'tile-2': '#e59a78',
  'tile-3': '#e5b457',
  'tile-4': '#e79ab2',
  'tile-5': '#b9c66a',
  'tile-6': '#b7a8e6',
  'tile-7': '#cfa982',
};

/** Colours of a page that is exported: the day's, also for paper, and the night's where a screen asks for them. */
export const pageColours = { ...paper, warning: paper['ochre-text'] };
export const pageColoursByNight = { ...byNight, warning: byNight['ochre-text'] };
