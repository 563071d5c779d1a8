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

/** Fields, choices and switches: one height, one frame, room for the arrow. */
const fields = {
  MuiOutlinedInput: {
    defaultProps: { size: 'small' as const },
    styleOverrides: {
      root: {
        fontSize: 13,
        backgroundColor: ink.paper,
        '& .MuiOutlinedInput-notchedOutline': { borderColor: ink.line },
        '&:hover .MuiOutlinedInput-notchedOutline': { borderColor: ink.softInk },
        '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: ink.wanted, borderWidth: 2 },
      },
      input: {
        padding: '4px 8px',
        height: 20,
        lineHeight: '20px',
        '&.MuiInputBase-inputMultiline': { padding: 0, height: 'auto' },
        // What stands in a field of figures before there are any is words.
        '&::placeholder': { fontFamily: fonts.text },
      },
      multiline: { padding: '4px 8px' },
    },
  },
  MuiSelect: {
    defaultProps: { size: 'small' as const, MenuProps: { transitionDuration: 0 } },
    styleOverrides: { select: { minHeight: 'auto', '&&': { paddingRight: 26 } }, icon: { right: 4, fontSize: 18 } },
  },
  MuiInputAdornment: { styleOverrides: { root: { '& .MuiTypography-root': { fontSize: 13 } } } },
  MuiInputLabel: { styleOverrides: { root: { fontSize: 13 } } },
  MuiFormLabel: { styleOverrides: { root: { fontSize: 13, color: ink.softInk } } },
  MuiFormHelperText: { styleOverrides: { root: { fontSize: 12, marginLeft: 0, marginRight: 0 } } },
  MuiFormControlLabel: { styleOverrides: { root: { marginLeft: -4, marginRight: 8 }, label: { fontSize: 13 } } },
  MuiCheckbox: { defaultProps: { size: 'small' as const }, styleOverrides: { root: { padding: 4 } } },
  MuiSwitch: { defaultProps: { size: 'small' as const } },
  MuiAutocomplete: {
    defaultProps: { size: 'small' as const },
    styleOverrides: { option: { fontSize: 13, '&&': { minHeight: 30, paddingTop: 2, paddingBottom: 2 } } },
  },
  MuiToggleButton: {
    defaultProps: { size: 'small' as const },
    styleOverrides: {
      root: {
        textTransform: 'none' as const,
        padding: '2px 10px',
        fontSize: 13,
        lineHeight: '22px',
        color: ink.ink,
        borderColor: ink.line,
        '&.Mui-selected': { backgroundColor: ink.bound, color: ink.ink, fontWeight: 700 },
      },
    },
  },
};

/** Tables, menus, sections: lines of one height on fine rules. */
const lists = {
  MuiMenuItem: { defaultProps: { dense: true }, styleOverrides: { root: { fontSize: 13, minHeight: 30 } } },
  MuiTable: { defaultProps: { size: 'small' as const } },
  MuiTableCell: {
    styleOverrides: {
      root: { borderColor: ink.line, fontSize: 13, lineHeight: 1.4, padding: '3px 8px 3px 0' },
      head: { color: ink.softInk, fontWeight: 400 },
    },
  },
  MuiAccordion: {
    defaultProps: { disableGutters: true, elevation: 0, square: true, slotProps: { transition: { timeout: 0 } } },
    styleOverrides: {
      root: {
        background: 'none',
        borderTop: `1px solid ${ink.line}`,
        '&::before': { display: 'none' },
      },
    },
  },
  MuiAccordionSummary: {
    styleOverrides: {
      root: { minHeight: 36, padding: 0, font: `700 13px ${fonts.text}`, color: ink.softInk },
      content: { margin: '6px 0', alignItems: 'center' },
    },
  },
  MuiAccordionDetails: { styleOverrides: { root: { padding: '0 0 8px', fontWeight: 400, fontSize: 14 } } },
  MuiAlert: { styleOverrides: { root: { padding: '2px 10px', border: `1px solid ${ink.line}`, borderRadius: 4 } } },
  MuiChip: { defaultProps: { size: 'small' as const } },
  MuiTabs: { styleOverrides: { root: { minHeight: 32 } } },
  MuiTab: { styleOverrides: { root: { minHeight: 32, textTransform: 'none' as const, padding: '4px 10px' } } },
};

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
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { fontFamily: 'inherit', '&.Mui-focusVisible': focus } },
    },
    MuiButton: {
      defaultProps: { variant: 'outlined', color: 'inherit', size: 'small', disableElevation: true },
      styleOverrides: {
        root: { minWidth: 0, padding: '3px 10px', borderColor: ink.line, backgroundColor: ink.raised, lineHeight: 1.5 },
        contained: {
          border: `1px solid ${ink.wanted}`,
          backgroundColor: ink.wanted,
          color: ink.raised,
          fontWeight: 700,
          '&:hover': { backgroundColor: ink.wanted },
        },
        text: { background: 'none' },
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
    MuiDialogTitle: { styleOverrides: { root: { fontSize: 18, fontWeight: 700, paddingBottom: 8 } } },
    ...fields,
    ...lists,
    MuiTooltip: { defaultProps: { enterDelay: 400, arrow: false } },
  },
});
