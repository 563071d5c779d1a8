import { createTheme } from '@mui/material/styles';
import type { Tokens } from './tokens';
import { cssVariables, dark, fonts, ink, light } from './tokens';

const palette = (t: Tokens) => ({
  primary: { main: t.wanted, contrastText: t.raised },
  error: { main: t.error },
  warning: { main: t.warning },
  success: { main: t.good },
  text: { primary: t.ink, secondary: t.softInk },
  divider: t.line,
  background: { default: t.paper, paper: t.raised },
});

const focus = { outline: `2px solid ${ink.wanted}`, outlineOffset: 2 } as const;

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'class' },
  colorSchemes: { light: { palette: palette(light) }, dark: { palette: palette(dark) } },
  shape: { borderRadius: 4 },
  spacing: 8,
  typography: {
    fontFamily: fonts.text,
    fontSize: 14,
    button: { textTransform: 'none', fontWeight: 400 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        ':root': cssVariables(light),
        '.dark': { ...cssVariables(dark), colorScheme: 'dark' },
        body: { fontSize: 14, lineHeight: 1.4, overflowWrap: 'anywhere' },
        '*:focus-visible': focus,
        'svg [tabindex]:focus': { outline: 'none' },
        'svg [tabindex]:focus-visible': focus,
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true }, styleOverrides: { root: { '&.Mui-focusVisible': focus } } },
    MuiButton: {
      defaultProps: { variant: 'outlined', color: 'inherit', size: 'small', disableElevation: true },
      styleOverrides: {
        root: { minWidth: 0, padding: '3px 10px', borderColor: ink.line, backgroundColor: ink.raised, lineHeight: 1.5 },
      },
    },
    MuiIconButton: { defaultProps: { size: 'small' } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    // What closes is gone at once: a fading backdrop would swallow the next click.
    MuiMenu: { defaultProps: { transitionDuration: 0 } },
    MuiDialog: {
      defaultProps: { transitionDuration: 0 },
      styleOverrides: { paper: { boxShadow: 'none', border: `1px solid ${ink.line}` } },
    },
    MuiTooltip: { defaultProps: { enterDelay: 400, arrow: false } },
  },
});
