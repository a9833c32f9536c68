import { deDE, enUS, esES } from '@mui/material/locale';
import { createTheme } from '@mui/material/styles';
import { teacherLanguage } from '@zest/core/words';

/** Gym-floor neutrals, court-line strokes and one accent. Every text pair is at least 4.5:1. */
export const paper = {
  floor: '#efe6d8',
  sheet: '#fffaf2',
  line: '#d8c8ae',
  ink: '#2a2016',
  soft: '#5d4f40',
  zest: '#a8460b',
  zestPale: '#ffe3c2',
  night: '#1d1915',
  teal: '#1f5f66',
  fault: '#a3142a',
};

/** Depth of colour by effort, 1 to 5. */
export const EFFORT_FILL = ['#f3ddbd', '#ebc793', '#e0a962', '#cf8538', '#b0621a'];

/** What is drawn by style sheets takes its colours from here. */
export const runningColours = {
  '--running-soft': paper.soft,
  '--running-line': paper.line,
  '--running-sheet': paper.sheet,
  '--running-hover': paper.zestPale,
  '--running-mark': paper.zest,
  '--running-fault': paper.fault,
  '--running-teal': paper.teal,
};

/** On a phone everything is as large as a thumb. */
const PHONE = '@media (max-width: 899px)';
const THUMB_PX = 44;

const shape = { borderRadius: 10 };
const typography = {
  fontFamily: '"Atkinson Hyperlegible Next Variable", sans-serif',
  fontSize: 15,
  h1: { fontSize: '1.6rem', fontWeight: 700 },
  h2: { fontSize: '1.2rem', fontWeight: 700 },
  h3: { fontSize: '1.05rem', fontWeight: 700 },
  button: { textTransform: 'none' as const, fontWeight: 650, fontSize: '0.98rem' },
};
const components = {
  MuiCssBaseline: { styleOverrides: { a: { color: paper.zest } } },
  MuiButton: {
    defaultProps: { disableElevation: true },
    styleOverrides: { root: { minHeight: 40, [PHONE]: { minHeight: THUMB_PX } } },
  },
  MuiIconButton: {
    styleOverrides: { root: { [PHONE]: { minWidth: THUMB_PX, minHeight: THUMB_PX } } },
  },
  MuiInputBase: { styleOverrides: { root: { [PHONE]: { minHeight: THUMB_PX } } } },
  MuiChip: {
    styleOverrides: {
      root: { [PHONE]: { '&.MuiChip-clickable': { minHeight: THUMB_PX, minWidth: THUMB_PX } } },
    },
  },
  MuiSwitch: {
    styleOverrides: { root: { [PHONE]: { '&&': { height: THUMB_PX, paddingBlock: 15 } } } },
  },
  MuiCheckbox: {
    styleOverrides: { root: { [PHONE]: { minWidth: THUMB_PX, minHeight: THUMB_PX } } },
  },
  MuiTextField: { defaultProps: { size: 'small' as const, fullWidth: true } },
  MuiButtonBase: { defaultProps: { disableRipple: true } },
  MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
  MuiFormHelperText: { styleOverrides: { root: { fontSize: '0.85rem' } } },
};

/** The words of the parts themselves, such as those that open and clear a list. */
const words = { en: enUS, de: deDE, es: esES }[teacherLanguage()];

export const dayTheme = createTheme(
  {
    palette: {
      mode: 'light',
      primary: { main: paper.zest },
      secondary: { main: paper.teal },
      background: { default: paper.floor, paper: paper.sheet },
      text: { primary: paper.ink, secondary: paper.soft },
      divider: paper.line,
      error: { main: paper.fault },
      success: { main: '#22683a' },
      info: { main: paper.teal },
    },
    shape,
    typography,
    components,
  },
  words,
);

/** The filming bench is dark: the screen must not light the performer. */
export const nightTheme = createTheme(
  {
    palette: {
      mode: 'dark',
      primary: { main: '#ffb454', contrastText: '#2a1a05' },
      secondary: { main: '#8fd6c9' },
      background: { default: paper.night, paper: '#2a241e' },
      text: { primary: '#fff6ea', secondary: '#dccdb9' },
      divider: '#5a4d3e',
      error: { main: '#ff9a8f' },
      success: { main: '#9be0ae' },
      info: { main: '#8fd6c9' },
    },
    shape,
    typography,
    components,
  },
  words,
);
