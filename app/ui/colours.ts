import { paper } from '../../core/report/paper';

/** Every colour of the interface: the day's are those of paper. */
export const day = paper;

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
