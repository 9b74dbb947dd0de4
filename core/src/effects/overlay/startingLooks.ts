import { emptyWhere, type Mix } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import type { OverlayControls } from './definition'

function look(
  id: string,
  name: string,
  shape: Partial<OverlayControls['shape']>,
  mode: Mix['mode'],
  pattern: Partial<OverlayControls['pattern']> = {},
): StartingLook<OverlayControls> {
  return {
    id,
    name,
    controls: {
      pattern: { picture: null, x: 1500, y: 1000, width: 1500, turn: 0, side: 'front', ...pattern },
      shape: { without: 'nothing', colour: '#ffffff', reach: 25, border: 0, blur: 0, ...shape },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: emptyWhere,
    mix: { mode, amount: 100, linear: false },
  }
}

/** A sky by Darken, sparks by Screen, a cut-out on white: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<OverlayControls>[] = [
  look('as-it-is', 'As it is', {}, 'normal'),
  look('a-sky-of-its-own', 'A sky of its own', { border: 150 }, 'darken', { width: 3000, y: 500 }),
  look('sparks-on-black', 'Sparks on black', { without: 'dark' }, 'screen'),
  look('cut-out-of-white', 'Cut out of white', { without: 'colour' }, 'normal'),
]
