import { createTheme } from '@mui/material/styles';

/** Neutral greys round pictures: the same in light and dark, so that tones are judged alike. */
export const surround = {
  page: '#4a4a4a',
  deep: '#333333',
  line: '#5f5f5f',
  text: '#f1f1f1',
  quiet: '#c4c4c4',
  accent: '#8fd0cb',
  caution: '#e8b35a',
  paper: '#f2efe6',
  /** Letters on what is pressed, and outlines round light marks. */
  ink: '#1c1c1c',
  /** The accent on paper. */
  strong: '#17665f',
  /** What can be pressed, and under the pointer. */
  raised: '#5a5a5a',
  raisedOver: '#686868',
  /** Paper under the pointer. */
  paperOver: '#ffffff',
  /** Behind pictures and drawings. */
  sunken: '#3a3a3a',
  /** Behind sections. */
  section: '#424242',
  seam: '#2b2b2b',
  /** What cannot be pressed. */
  off: '#8a8a8a',
  /** A lamp's tag. */
  lamp: '#bfe5e1',
  /** Behind words that lie on a picture. */
  over: 'rgba(40,40,40,0.86)',
  /** Behind pictures of others, brought in as references. */
  reference: '#6b6b6b',
} as const;

/** Marks of the plans and of the walk round, on the surround. */
export const setMarks = {
  light: '#ffffff',
  dark: '#111111',
  /** Edges of a dark thing. */
  edge: '#777777',
  lit: '#fffbe8',
  unlit: '#777777',
  whiteSheet: '#f4f4f0',
  blackSheet: '#151515',
  product: '#8c2f43',
  productInSpace: '#a5485c',
  person: '#6d5a70',
  stand: '#1c1c1c',
  camera: '#d6d6d6',
  lens: '#333333',
  lensRim: '#eeeeee',
  table: '#6b6258',
  tableInSpace: '#8a7d6c',
  backdrop: '#e8e8e8',
  backdropInSpace: '#cfcfcf',
  handle: '#bdbdbd',
  room: '#9a9a9a',
  sky: '#ffffff',
  ground: '#777777',
} as const;

/** Drawings on the page's own ground. */
export const onPage = {
  line: '#17665f',
  ink: '#1f1f1f',
  ground: '#f1f0ec',
  fill: 'rgba(23,102,95,0.12)',
  fillOver: 'rgba(23,102,95,0.35)',
  floor: '#dcd9d0',
  body: '#dfe5e2',
  lamp: '#f1f1f122',
  thing: '#bdbdbd44',
} as const;

/** Marks over a framed picture. */
export const framed = {
  shade: 'rgba(20,20,20,0.28)',
  stripe: 'rgba(255,255,255,0.55)',
  thirds: 'rgba(255,255,255,0.4)',
  axis: '#ffffff88',
  limit: 'rgba(143,208,203,0.9)',
} as const;

/** Small drawings of what is wanted: tones of a picture, the same in light and dark. */
export const wishTones = { light: '#f4f2ec', mid: '#8f8f8f', dark: '#222222', line: '#8a8a8a' } as const;

/** Lines over the drawn band. */
export const banded = { hatch: 'rgba(0,0,0,0.55)', onDark: '#d8d8d8' } as const;

/** A message that warns. */
export const warned = '#7a4d00';

const numbers = '"JetBrains Mono Variable", ui-monospace, monospace';
const words = '"Archivo Variable", system-ui, sans-serif';

/** Where the keyboard is: in the colour of the words there, which stands off from every ground. */
const FOCUS = { outline: '2px solid currentColor', outlineOffset: 1 } as const;

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data' },
  colorSchemes: {
    light: {
      palette: {
        background: { default: '#e9e8e4', paper: '#f1f0ec' },
        text: { primary: '#1f1f1f', secondary: '#565656' },
        primary: { main: surround.strong },
        warning: { main: '#8a5a00' },
        error: { main: '#a3261f' },
        info: { main: '#565656' },
        divider: '#d2d0ca',
      },
    },
    dark: {
      palette: {
        background: { default: '#262626', paper: '#2e2e2e' },
        text: { primary: '#f0f0f0', secondary: '#b9b9b9' },
        primary: { main: surround.accent },
        warning: { main: '#e0a84a' },
        error: { main: '#ff8a80' },
        info: { main: '#b9b9b9' },
        divider: '#4a4a4a',
      },
    },
  },
  shape: { borderRadius: 2 },
  typography: {
    fontFamily: words,
    fontSize: 13,
    button: { textTransform: 'none', fontWeight: 600 },
    h1: { fontSize: '1.5rem', fontWeight: 650 },
    h2: { fontSize: '0.875rem', fontWeight: 650 },
    body2: { fontSize: '0.8125rem' },
    caption: { fontSize: '0.75rem' },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontStretch: '94%', fontVariantNumeric: 'tabular-nums' },
        input: { font: 'inherit' },
        '.MuiInputBase-root.MuiNativeSelect-root': {
          maxWidth: '100%',
          border: '1px solid var(--mui-palette-divider)',
          borderRadius: 2,
          color: 'inherit',
          fontSize: '0.8125rem',
        },
        '.MuiInputBase-root > select.MuiNativeSelect-select': {
          height: 25,
          minWidth: 0,
          padding: '0 20px 0 6px',
          '&.number': { fontFamily: numbers },
          textOverflow: 'ellipsis',
          '&:focus': { backgroundColor: 'transparent' },
        },
        '.MuiNativeSelect-root > .MuiNativeSelect-icon': {
          color: 'inherit',
          fontSize: 18,
          top: 'calc(50% - 9px)',
        },
        option: {
          color: 'var(--mui-palette-text-primary)',
          backgroundColor: 'var(--mui-palette-background-paper)',
        },
        // On paper there is nothing to press.
        '@media print': {
          body: { backgroundColor: '#fff' },
          '.MuiButton-root, .MuiSwitch-root': { display: 'none' },
        },
        '.number': { fontFamily: numbers, fontSize: '0.8125rem', letterSpacing: '-0.01em' },
        // Rows of the panels by plain classes: many of them are drawn anew at every step of a drag.
        '.row': {
          display: 'flex',
          alignItems: 'center',
          minHeight: 27,
          // Values stand near their labels, however wide the page.
          maxWidth: 460,
          borderBottom: '1px solid var(--mui-palette-divider)',
          fontSize: '0.8125rem',
        },
        '.row-label': { flex: 1, color: 'var(--mui-palette-text-secondary)' },
        // A label keeps to one line for as long as the field beside it can be narrower.
        '.row:has(> input.number) > .row-label': { flex: '1 0 auto', maxWidth: 'calc(100% - 80px)' },
        '.row > .number': {
          padding: 0,
          border: 0,
          background: 'none',
          color: 'inherit',
        },
        '.row > .MuiInputBase-root': { maxWidth: '64%', margin: '1px 0' },
        '.row > input.number': { flex: '0 1 140px', width: 0, minWidth: 76, height: 26, textAlign: 'right' },
        '.row > button.number': {
          cursor: 'pointer',
          textDecoration: 'underline dotted',
          textUnderlineOffset: 3,
        },
        ':focus-visible': FOCUS,
      },
    },
    // The library takes the outline away, and shows focus by a ripple that we do not have.
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { '&.Mui-focusVisible': FOCUS } },
    },
    // What is pressed looks pressed, wherever a button says so.
    MuiButton: {
      styleOverrides: {
        root: {
          '&:where(.MuiButton-text, .MuiButton-outlined):where([aria-pressed="true"])': {
            boxShadow: 'inset 0 -2px 0 currentColor',
          },
        },
      },
    },
    MuiInputBase: { styleOverrides: { input: { '&:focus-visible': FOCUS } } },
    // Its field is narrower than its frame: the frame shows the focus.
    MuiAutocomplete: {
      styleOverrides: {
        root: {
          '& input:focus-visible': { outline: 'none' },
          '& .MuiInputBase-root.Mui-focused': FOCUS,
        },
      },
    },
    MuiSlider: { styleOverrides: { thumb: { '&.Mui-focusVisible': FOCUS } } },
    MuiTooltip: { defaultProps: { enterDelay: 400 } },
  },
});
