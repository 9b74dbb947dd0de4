import type { LuminosityMask } from '../../masks/luminosity/definition'
import type { Where } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import { sparesShadows } from '../sparesShadows'
import type { SoftFocusControls } from './definition'

const midtones: LuminosityMask = { ...sparesShadows, id: 'mids', curve: 'mids', handles: [0, 1, 1, 1], steepness: -1, feather: 0 }
const brights: LuminosityMask = {
  ...sparesShadows,
  id: 'brights',
  join: 'subtract',
  curve: 'brights',
  handles: [0, 1, 1, 1],
  steepness: 2,
  feather: 0,
}
/** A high-pass of 4 px by Soft light: common practice, no source. */
const broad = { detailMode: 'soft-light', detailRadius: 4 } as const
/** Widened midtones less the brights: common practice, no source. */
const midsLessBrights: Where = { masks: [midtones, brights], hold: 100 }

function look(
  id: string,
  name: string,
  mode: 'normal' | 'screen' | 'soft-light',
  amount: number,
  pattern: Partial<SoftFocusControls['pattern']>,
  shape: Partial<SoftFocusControls['shape']>,
  where: Where = everywhere,
): StartingLook<SoftFocusControls> {
  return {
    id,
    name,
    controls: {
      pattern: {
        ...{ by: 'veil', radius: 12.5, lightRadius: 17.5, contrast: 0, brightness: 0, saturation: 100, tint: '#ffffff' },
        ...{ darkContrast: 0, darkBrightness: 0, darkSaturation: 100, darkTint: '#ffffff', first: 'dark' },
        ...pattern,
      },
      shape: {
        ...{ glow: 100, darkening: 0, protectHighlights: 0, protectShadows: 0 },
        ...{ detailBy: 'own', detail: 0, detailWith: 'own', detailMode: 'overlay', detailRadius: 1 },
        ...shape,
      },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where,
    mix: { mode, amount, linear: false },
  }
}

/**
 * Common practice, no source. Veil: r = 25 px at 24 megapixels, at 15 %. Bloom: contrast up by 15 before the blur, Screen at 40 %, shadows down after. Pair: 35 px, at 65 %, the light copy with its
 * contrast up by 45 and less bright. Detail by high-pass: 1 px by Overlay, 4 px by Soft light, or by Linear light at 22 %, whatever the amount of the glow. Lengths for 6 megapixels, where they are half of
 * those at 24.
 */
export const startingLooks: readonly StartingLook<SoftFocusControls>[] = [
  look('veil', 'Veil', 'normal', 15, { contrast: 70, brightness: 4 }, { detail: 40 }),
  look(
    'dream-bloom',
    'Dream bloom',
    'screen',
    40,
    { by: 'bloom', radius: 30, contrast: 15, brightness: -12 },
    { darkening: 60, detail: 40, ...broad },
  ),
  look(
    'dark-and-light',
    'Dark and light',
    'normal',
    65,
    { by: 'pair', radius: 17.5, contrast: 45, brightness: -10 },
    { glow: 75, darkening: 60, detail: 40, ...broad },
    midsLessBrights,
  ),
  look(
    'silk',
    'Silk',
    'normal',
    55,
    { by: 'diffusion', radius: 20, brightness: 6 },
    { protectShadows: 50, detail: 22, detailMode: 'linear-light', detailRadius: 4 },
  ),
]
