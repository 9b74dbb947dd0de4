import type { EllipseMask } from '../masks/ellipse/definition'
import type { LuminosityMask } from '../masks/luminosity/definition'
import type { SkyMask } from '../masks/sky/definition'
import { emptyWhere, type Where } from '../model/look'
import { FOCAL_POINT } from '../model/marks'
import { sparesShadows } from './sparesShadows'

/** Keeps light behind what is dark in the photo: silhouettes stay in front. */
const behindSilhouettes: LuminosityMask = {
  ...sparesShadows,
  id: 'silhouettes',
  name: 'Behind silhouettes',
  handles: [0.3, 0.5, 1, 1],
  feather: 1,
}

/** Light behind silhouettes. `spill` percent of it come over them all the same. */
export function behind(spill: number): Where {
  return { masks: [behindSilhouettes], hold: 100 - spill }
}

/** Everything but the sky. */
export const notTheSky: SkyMask = {
  id: 'ground',
  name: 'Not the sky',
  kind: 'sky',
  on: true,
  join: 'keep',
  invert: true,
  strength: 100,
  grow: 0,
  edges: 0,
  feather: 2,
  tolerance: 8,
  calm: 0.8,
}

/** Light that falls on surfaces spares the shadows. */
export const onSurfaces: Where = { masks: [{ ...sparesShadows, handles: [0, 0.3, 1, 1], feather: 6 }], hold: 90 }

export const everywhere: Where = emptyWhere

/** An ellipse about the focal point, for a photo of 6 megapixels. */
export function aboutTheFocalPoint(radiusX: number, radiusY: number, softness = 90): Where {
  const ellipse: EllipseMask = {
    id: 'ellipse',
    name: '',
    kind: 'ellipse',
    on: true,
    join: 'keep',
    invert: false,
    strength: 100,
    grow: 0,
    edges: 0,
    feather: 0,
    x: 1500,
    y: 1050,
    follows: FOCAL_POINT,
    radiusX,
    radiusY,
    turn: 0,
    softness,
  }
  return { masks: [ellipse], hold: 100 }
}
