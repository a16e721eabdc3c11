import { createTheme, ThemeProvider } from '@mui/material/styles';
import type { ReactNode } from 'react';

export const serif = '"Fraunces Variable", Georgia, serif';
export const sans = '"Source Sans 3 Variable", "Segoe UI", sans-serif';
export const mono = '"IBM Plex Mono", ui-monospace, monospace';

const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-mode' },
  colorSchemes: {
    light: {
      palette: {
        background: { default: '#F5EFE4', paper: '#FFFBF3' },
        text: { primary: '#2A241F', secondary: '#5F564B' },
        primary: { main: '#A4472A', contrastText: '#FFFBF3' },
        secondary: { main: '#2C4A7A', contrastText: '#FFFBF3' },
        success: { main: '#2F6F62' },
        warning: { main: '#8A5A0A' },
        error: { main: '#7A2440' },
        divider: '#D8CCB8',
      },
    },
    dark: {
      palette: {
        background: { default: '#211B16', paper: '#2B241E' },
        text: { primary: '#F1E8DA', secondary: '#BFB19C' },
        primary: { main: '#E08A66', contrastText: '#211B16' },
        secondary: { main: '#9DB7E4', contrastText: '#211B16' },
        success: { main: '#7CC2B1' },
        warning: { main: '#E5B457' },
        error: { main: '#E79AB2' },
        divider: '#4A4037',
      },
    },
  },
  shape: { borderRadius: 4 },
  // Wet hands want an answer, not a motion.
  transitions: { create: () => 'none' },
  typography: {
    fontFamily: sans,
    fontSize: 15,
    h1: { fontFamily: serif, fontSize: '1.75rem', fontWeight: 600, lineHeight: 1.2 },
    h2: { fontFamily: serif, fontSize: '1.2rem', fontWeight: 600, lineHeight: 1.3 },
    h3: { fontFamily: serif, fontSize: '1rem', fontWeight: 600 },
    button: { textTransform: 'none', fontWeight: 600, fontSize: '0.95rem' },
  },
  components: {
    MuiButton: { defaultProps: { disableElevation: true } },
    MuiDialogActions: { styleOverrides: { root: { padding: '4px 24px 18px' } } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: {
          backgroundColor: 'var(--sheet)',
          // A sealed plan is read more often than it is written: its fields stay legible.
          '&.Mui-disabled': { backgroundColor: 'transparent' },
          '&.Mui-disabled .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--line)' },
          '& .MuiOutlinedInput-input.Mui-disabled': { WebkitTextFillColor: 'var(--ink)' },
        },
      },
    },
    MuiInputLabel: { styleOverrides: { root: { '&.Mui-disabled': { color: 'var(--soft)' } } } },
    MuiFormHelperText: { styleOverrides: { root: { '&.Mui-disabled': { color: 'var(--soft)' } } } },
    MuiFormControlLabel: { styleOverrides: { label: { '&.Mui-disabled': { color: 'var(--ink)' } } } },
    MuiDialog: { styleOverrides: { paper: { backgroundColor: 'var(--sheet)', backgroundImage: 'none' } } },
    MuiToggleButton: {
      styleOverrides: { root: { color: 'var(--soft)', '&.Mui-selected': { color: 'var(--ink)' } } },
    },
    MuiTooltip: { defaultProps: { arrow: true } },
  },
});

/** The plaster-and-ink theme, with its night side, around everything. */
export function PalazzoTheme({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={theme} defaultMode="light">
      {children}
    </ThemeProvider>
  );
}
