import { byNight, paper } from '../../core/picture/paper.ts';

/** Every colour of the interface: the day's are those of paper. */
export const day = paper;
export const night = byNight;

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
