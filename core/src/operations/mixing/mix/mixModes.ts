/**
 * Blend modes in the order of the kernel: the 16 of W3C Compositing and Blending Level 1, then plus-lighter
 * (addition), linear light (base + 2 source - 1) and subtract (base - source).
 */
export const mixModes = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
  'plus-lighter',
  'linear-light',
  'subtract',
] as const
export type MixMode = (typeof mixModes)[number]

/** Names of the modes as the recommendation of the W3C and the trade write them. */
export const modeLabels: Record<MixMode, string> = {
  normal: 'Normal',
  multiply: 'Multiply',
  screen: 'Screen',
  overlay: 'Overlay',
  darken: 'Darken',
  lighten: 'Lighten',
  'color-dodge': 'Colour dodge',
  'color-burn': 'Colour burn',
  'hard-light': 'Hard light',
  'soft-light': 'Soft light',
  difference: 'Difference',
  exclusion: 'Exclusion',
  hue: 'Hue',
  saturation: 'Saturation',
  color: 'Colour',
  luminosity: 'Luminosity',
  'plus-lighter': 'Addition',
  'linear-light': 'Linear light',
  subtract: 'Subtract',
}
