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
