/** Colours, type and component defaults: paper, ink, copper for the person's own acts, teal for what is linked. */
import { createTheme } from '@mui/material/styles'
import { INKS, TONES } from './paints'

export const INK = INKS.ink
export const PAPER = TONES.paper
export const COPPER = '#B4622D'
export const TEAL = INKS.link
export const SNAG = '#B3261E'
export const FRAME = '#F6F1E7'
export const LINE = '#E3DCCB'
export const QUIET = INKS.quiet
export const MONO = '"IBM Plex Mono", monospace'

/** Who has asked the system for less motion sees no fading and sliding. */
const STILL = window.matchMedia('(prefers-reduced-motion: reduce)').matches
const AT_ONCE = { shortest: 0, shorter: 0, short: 0, standard: 0, complex: 0 }
const NO_MOTION = {
  create: () => 'none',
  duration: { ...AT_ONCE, enteringScreen: 0, leavingScreen: 0 },
}

export const theme = createTheme({
  transitions: STILL ? NO_MOTION : {},
  palette: {
    primary: { main: COPPER },
    secondary: { main: TEAL },
    error: { main: SNAG },
    text: { primary: INK, secondary: QUIET },
    background: { default: FRAME, paper: '#FFFFFF' },
    divider: LINE,
  },
  typography: { fontFamily: 'Inter, sans-serif', fontSize: 13, button: { textTransform: 'none' } },
  shape: { borderRadius: 6 },
  components: {
    MuiButton: { defaultProps: { size: 'small', disableElevation: true } },
    // A choice of nothing is a choice with words of its own, so labels stay above what they name.
    MuiTextField: { defaultProps: { size: 'small', slotProps: { inputLabel: { shrink: true } } } },
    // A list that is fading away would still take the next click.
    MuiMenu: { defaultProps: { transitionDuration: 0 } },
    MuiPopover: { defaultProps: { transitionDuration: 0 } },
    MuiSelect: { defaultProps: { displayEmpty: true } },
    MuiTooltip: { defaultProps: { arrow: true } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiCssBaseline: {
      styleOverrides: {
        'html, body, #root': { height: '100%', margin: 0 },
        body: { fontSize: 13 },
        a: { color: TEAL },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transitionDuration: '0s !important' },
        },
        '*:focus-visible': { outline: `2px solid ${COPPER}`, outlineOffset: 1 },
      },
    },
  },
})
