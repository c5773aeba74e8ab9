'use client';
import { createTheme } from '@mui/material/styles';

const mono = '"IBM Plex Mono", ui-monospace, monospace';

declare module '@mui/material/styles' {
  interface Palette {
    brass: string;
    line: string;
    wash: string;
    faint: string;
  }
  interface PaletteOptions {
    brass?: string;
    line?: string;
    wash?: string;
    faint?: string;
  }
}

/** Colours of cuts by their place in the plan: the order keeps neighbours apart for every kind of colour sight. */
export const cutColours = [
  '#2563a8',
  '#b4611a',
  '#6b4e9b',
  '#1f7d5c',
  '#b0336a',
  '#7a6a12',
  '#3d8fb0',
  '#8a3f2b',
  '#4d5d6b',
  '#9a5fb3',
];
export const cutColour = (index: number): string => cutColours[index % cutColours.length];

/** A bright workshop: paper, ink, verdigris for what is active, brass for accent, vermilion for danger alone. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-color-scheme' },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#2b7a74', dark: '#1f625d', contrastText: '#ffffff' },
        secondary: { main: '#8f6619', contrastText: '#ffffff' },
        error: { main: '#b93a27', contrastText: '#ffffff' },
        background: { default: '#f6f3ec', paper: '#ffffff' },
        text: { primary: '#1e2a2f', secondary: '#57646a' },
        divider: '#e2ddd1',
        brass: '#a87b24',
        line: '#d8d2c4',
        wash: '#e3efed',
        faint: '#faf8f3',
      },
    },
    dark: {
      palette: {
        primary: { main: '#5fb8af', dark: '#8ad3cb', contrastText: '#0d1415' },
        secondary: { main: '#d3a64b', contrastText: '#15191c' },
        error: { main: '#ef7d69', contrastText: '#15191c' },
        background: { default: '#15191c', paper: '#1d2327' },
        text: { primary: '#e9e6de', secondary: '#a3adb1' },
        divider: '#2e363b',
        brass: '#d3a64b',
        line: '#3a444a',
        wash: '#1f3836',
        faint: '#191f22',
      },
    },
  },
  shape: { borderRadius: 5 },
  typography: {
    fontFamily: '"IBM Plex Sans", system-ui, sans-serif',
    fontSize: 13,
    h1: { fontFamily: 'Archivo, sans-serif', fontWeight: 650, fontSize: 28, letterSpacing: '-0.01em' },
    h2: { fontFamily: 'Archivo, sans-serif', fontWeight: 650, fontSize: 18 },
    h3: { fontFamily: 'Archivo, sans-serif', fontWeight: 600, fontSize: 14 },
    button: { textTransform: 'none', fontWeight: 550 },
    body2: { fontSize: 13 },
    caption: { fontSize: 12 },
  },
  transitions: {
    duration: {
      shortest: 80,
      shorter: 100,
      short: 120,
      standard: 140,
      complex: 140,
      enteringScreen: 140,
      leavingScreen: 120,
    },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontVariantNumeric: 'tabular-nums', overflow: 'hidden' },
        'code, pre': { fontFamily: mono },
        '.reach': { display: 'none' },
        // What a finger touches is 44 pixels large.
        '@media (pointer: coarse)': {
          '.reach': { display: 'inline' },
          '.MuiButton-root, .MuiToggleButton-root, .MuiMenuItem-root, .MuiFormControlLabel-root, .MuiInputBase-root': {
            minHeight: '44px !important',
          },
          // As high by its own line: text stays in the middle, and is cut off where it is too long.
          '.MuiSelect-select': {
            minHeight: '22px !important',
            lineHeight: '22px !important',
            paddingTop: '11px !important',
            paddingBottom: '11px !important',
          },
          '.MuiButton-root, .MuiIconButton-root, .MuiCheckbox-root, .MuiToggleButton-root': {
            minWidth: '44px !important',
            minHeight: '44px !important',
          },
          '[role="radio"]': { minWidth: 44, minHeight: 44 },
          '.MuiSlider-root': { paddingTop: '21px !important', paddingBottom: '21px !important' },
        },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transitionDuration: '0ms !important', animationDuration: '0ms !important' },
        },
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: {
          fontFamily: 'inherit',
          '&.Mui-focusVisible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      // Buttons that come and go while work is done are not drawn frame by frame.
      styleOverrides: { root: { borderRadius: 8, minHeight: 34, transition: 'none' } },
    },
    MuiIconButton: { styleOverrides: { root: { borderRadius: 8 } } },
    MuiTooltip: { defaultProps: { enterDelay: 400, arrow: false } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { borderRadius: 8, backgroundColor: 'var(--mui-palette-background-paper)' },
        notchedOutline: { borderColor: 'var(--mui-palette-line)' },
        input: { padding: '7px 10px' },
      },
    },
    MuiSelect: { styleOverrides: { select: { paddingTop: 7, paddingBottom: 7 } } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDialog: { styleOverrides: { paper: { borderRadius: 14 } } },
  },
});

export { mono };
