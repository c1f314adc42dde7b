import { createTheme } from '@mui/material/styles';

/** Neutral greys round pictures: the same in light and dark, so that tones are judged alike. */
export const surround = {
  page: '#4a4a4a',
  deep: '#333333',
  line: '#5f5f5f',
  text: '#f1f1f1',
  quiet: '#c4c4c4',
  accent: '#8fd0cb',
  caution: '#e0a84a',
  paper: '#f2efe6',
} as const;

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
        primary: { main: '#17665f' },
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
        primary: { main: '#8fd0cb' },
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
        'select, input': { font: 'inherit' },
        // The browser's own list, so that it opens as the device does it, in our clothes.
        select: {
          appearance: 'none',
          minWidth: 0,
          maxWidth: '100%',
          height: 27,
          padding: '0 20px 0 6px',
          border: '1px solid var(--mui-palette-divider)',
          borderRadius: 2,
          color: 'inherit',
          backgroundColor: 'transparent',
          backgroundImage:
            'linear-gradient(45deg, transparent 50%, currentColor 50%), linear-gradient(135deg, currentColor 50%, transparent 50%)',
          backgroundPosition: 'right 10px center, right 6px center',
          backgroundSize: '4px 4px',
          backgroundRepeat: 'no-repeat',
          textOverflow: 'ellipsis',
          cursor: 'pointer',
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
        '.row > select': { maxWidth: '64%', margin: '1px 0', fontSize: '0.8125rem' },
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
    MuiInputBase: { styleOverrides: { input: { '&:focus-visible': FOCUS } } },
    MuiSlider: { styleOverrides: { thumb: { '&.Mui-focusVisible': FOCUS } } },
    MuiTooltip: { defaultProps: { enterDelay: 400 } },
  },
});
