/** Every colour of the interface, day and night: the one source for screen, canvas, print and exported pages. */
export const day = {
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

export const night: Record<keyof typeof day, string> = {
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

export const fonts = {
  serif: '"Fraunces Variable", Georgia, serif',
  sans: '"Source Sans 3 Variable", "Segoe UI", sans-serif',
  mono: '"IBM Plex Mono", ui-monospace, monospace',
} as const;

/** Colours of a page that is exported: always the day's, for paper. */
export const pageColours = { ...day, warning: day['ochre-text'] };

const variables = (values: Record<string, string>) =>
  Object.entries(values)
    .map(([name, value]) => `  --${name}: ${value};`)
    .join('\n');

/** The colours and fonts as CSS variables; the build makes its style sheet of it. */
export const colourSheet = `:root, [data-mode='light'] {
${variables({ ...day, ...fonts })}
  color-scheme: light;
}
[data-mode='dark'] {
${variables(night)}
  color-scheme: dark;
}
`;
