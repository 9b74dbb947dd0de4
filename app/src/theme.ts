import { createTheme } from '@mui/material/styles'
import { SURROUND } from './common/surround'

/** The colours of the interface. Nothing but the accent is coloured; people judge colour between these panels. */
export const ink = {
  paper: '#e9e8e5',
  raised: '#f4f3f1',
  well: '#dedcd7',
  rule: '#c9c6bf',
  ink: '#1f2123',
  secondary: '#54575a',
  surround: SURROUND,
  accent: '#b3361f',
  stage: '#000000',
  white: '#ffffff',
  /** What fills a chart behind its lines. */
  chart: '#b9bcbf',
  /** Ink, and accent, as they are under the pointer. */
  raisedInk: '#3a3d40',
  accentWash: '#f0d8d3',
}

/** Red, green and blue where they stand for themselves: dark enough for lines on white. */
export const channel = { red: '#b3261e', green: '#2c6e31', blue: '#2554a8' }

export const weight = { plain: 400, strong: 650 }

/** What a chart lies on. */
export const chartFrame = { width: '100%', display: 'block', bgcolor: ink.white, border: `1px solid ${ink.rule}` } as const

/** Css px; what stands at the right of the photo. */
export const PANEL_WIDTH = 320

const focusRing = { outline: `2px solid ${ink.accent}`, outlineOffset: 2 }
const hairline = `1px solid ${ink.rule}`

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: ink.ink, contrastText: '#ffffff' },
    secondary: { main: ink.accent },
    error: { main: ink.accent },
    background: { default: ink.paper, paper: ink.raised },
    text: { primary: ink.ink, secondary: ink.secondary },
    divider: ink.rule,
  },
  shape: { borderRadius: 3 },
  spacing: 4,
  shadows: Array(25).fill('none') as never,
  transitions: { create: () => 'none' },
  typography: {
    fontFamily: '"Instrument Sans Variable", system-ui, sans-serif',
    fontSize: 13,
    htmlFontSize: 16,
    body1: { fontSize: 13, lineHeight: 1.4 },
    body2: { fontSize: 12, lineHeight: 1.4 },
    h1: { fontSize: 26, fontWeight: 600, letterSpacing: '-0.02em', lineHeight: 1.15 },
    h2: { fontSize: 17, fontWeight: weight.strong, letterSpacing: '-0.01em', lineHeight: 1.2 },
    h3: { fontSize: 13, fontWeight: weight.strong },
    button: { fontSize: 13, fontWeight: 500, textTransform: 'none' },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        'html, body, #root': { height: '100%' },
        body: { fontVariantNumeric: 'tabular-nums', fontFeatureSettings: '"tnum"', overflow: 'hidden', userSelect: 'none' },
        'input, textarea, [role=alert]': { userSelect: 'text' },
        input: { accentColor: ink.ink },
        ':focus-visible': focusRing,
        '@media (prefers-reduced-motion: reduce)': { '*': { transition: 'none !important' } },
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { fontFamily: 'inherit', fontSize: 'inherit', '&.Mui-focusVisible': focusRing } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, color: 'primary' },
      styleOverrides: {
        root: { minWidth: 0, minHeight: 32, padding: '4px 11px', lineHeight: 1.3 },
        outlined: { borderColor: ink.rule, '&:hover': { borderColor: ink.ink, backgroundColor: ink.raised } },
        text: { '&:hover': { backgroundColor: ink.well } },
      },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 32,
          padding: '3px 10px',
          color: ink.ink,
          borderColor: ink.rule,
          '&.Mui-selected': { backgroundColor: ink.raised, boxShadow: `inset 0 -2px 0 ${ink.accent}`, color: ink.ink },
          '&.Mui-selected:hover': { backgroundColor: ink.raised },
        },
      },
    },
    MuiSlider: {
      styleOverrides: {
        root: { height: 3, padding: '9px 0', color: ink.ink, '@media (pointer: coarse)': { padding: '18px 0' } },
        rail: { backgroundColor: '#b9b6af', opacity: 1 },
        track: { border: 'none' },
        thumb: {
          width: 15,
          height: 15,
          backgroundColor: '#ffffff',
          border: `1.5px solid ${ink.ink}`,
          '&:hover, &.Mui-active': { boxShadow: 'none' },
          '&.Mui-focusVisible': { boxShadow: `0 0 0 3px ${ink.accent}` },
        },
      },
    },
    MuiTooltip: {
      defaultProps: { enterDelay: 500 },
      styleOverrides: { tooltip: { backgroundColor: ink.ink, fontSize: 12, borderRadius: 2, fontWeight: weight.plain } },
    },
    MuiPaper: {
      styleOverrides: { root: { backgroundImage: 'none' }, elevation8: { border: hairline }, elevation24: { border: hairline } },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: {
          backgroundColor: ink.raised,
          '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: ink.accent, borderWidth: 2 },
        },
        input: { padding: '5px 8px', height: 'auto' },
        notchedOutline: { borderColor: ink.rule },
      },
    },
    MuiSelect: { styleOverrides: { select: { padding: '5px 8px', minHeight: 'auto' } } },
    MuiPopover: { defaultProps: { transitionDuration: 0 } },
    MuiMenu: { defaultProps: { transitionDuration: 0 } },
    MuiMenuItem: {
      styleOverrides: {
        root: { fontSize: 13, minHeight: 30, '&.Mui-selected': { boxShadow: `inset 3px 0 0 ${ink.accent}`, backgroundColor: ink.paper } },
      },
    },
    MuiLinearProgress: { styleOverrides: { root: { height: 4, backgroundColor: ink.well }, bar: { backgroundColor: ink.ink } } },
    MuiSwitch: {
      defaultProps: { size: 'small' },
      styleOverrides: {
        switchBase: {
          '&.Mui-checked': { color: '#fff' },
          '&.Mui-checked + .MuiSwitch-track': { backgroundColor: ink.ink, opacity: 1 },
          '&.Mui-focusVisible .MuiSwitch-thumb': { boxShadow: `0 0 0 3px ${ink.accent}` },
        },
        thumb: { border: `1px solid ${ink.ink}` },
      },
    },
    // Gone at once: what is pressed next is meant for what lies behind.
    MuiDialog: { defaultProps: { transitionDuration: 0 }, styleOverrides: { paper: { backgroundColor: ink.raised } } },
  },
})
