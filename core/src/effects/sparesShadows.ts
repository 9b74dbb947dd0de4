import type { LuminosityMask } from '../masks/luminosity/definition'

/** The usual first mask of what falls through the light: the deepest shadows keep most of it out. */
export const sparesShadows: LuminosityMask = {
  id: 'shadows',
  name: '',
  kind: 'luminosity',
  on: true,
  join: 'keep',
  invert: false,
  strength: 100,
  grow: 0,
  edges: 0,
  feather: 2,
  tonesFrom: 'photo',
  pinned: null,
  channel: 'encodedLuma',
  curve: 'range',
  free: null,
  handles: [0.02, 0.22, 1, 1],
  steepness: 0,
}
