import { createTheme, ThemeProvider } from '@mui/material/styles';
import type {} from '@mui/x-date-pickers/themeAugmentation';
import type { ReactNode } from 'react';
import { day, fonts, night } from './colours';

export const { serif, sans, mono } = fonts;

/** MUI's palette out of the one set of colours. */
const palette = (of: Record<keyof typeof day, string>, onAccent: string) => ({
  background: { default: of.plaster, paper: of.sheet },
  text: { primary: of.ink, secondary: of.soft },
  primary: { main: of.terracotta, contrastText: onAccent },
  secondary: { main: of.lapis, contrastText: onAccent },
  success: { main: of.verdigris },
  warning: { main: of['ochre-text'] },
  error: { main: of.porphyry },
  divider: of.line,
});

const noTime = {
  ...{ shortest: 0, shorter: 0, short: 0, standard: 0, complex: 0 },
  ...{ enteringScreen: 0, leavingScreen: 0 },
};

const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-mode' },
  colorSchemes: {
    light: { palette: palette(day, day.sheet) },
    dark: { palette: palette(night, night.plaster) },
  },
  shape: { borderRadius: 4 },
  // Wet hands want an answer, not a motion: what is closed is gone, and doesn't lie unseen over what is pressed next.
  transitions: { create: () => 'none', duration: noTime, getAutoHeightDuration: () => 0 },
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
    // The fields of a day are the interface library's own; they look like all others.
    MuiPickersOutlinedInput: {
      styleOverrides: {
        root: {
          backgroundColor: 'var(--sheet)',
          '&.Mui-disabled': { backgroundColor: 'transparent', color: 'var(--ink)' },
          '&.Mui-disabled .MuiPickersSectionList-root': { color: 'var(--ink)', opacity: 1 },
          '&.Mui-disabled .MuiPickersOutlinedInput-notchedOutline': { borderColor: 'var(--line)' },
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
    // An open list lies over a notice, which says what is over already.
    MuiPopover: { styleOverrides: { root: ({ theme }) => ({ zIndex: theme.zIndex.snackbar + 1 }) } },
    MuiTooltip: { defaultProps: { arrow: true } },
  },
});

/** The plaster-and-ink theme, with its night side, around everything. */
export function PalazzoTheme({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      {children}
    </ThemeProvider>
  );
}
