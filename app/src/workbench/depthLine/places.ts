import type { DepthPlace } from '@welkinar/core'

/** Words for the places of the depth line. */
export const placeLabels: Record<DepthPlace, string> = {
  sky: 'Sky',
  far: 'Far',
  middle: 'Middle',
  near: 'Near',
  lens: 'Lens',
  finish: 'Finish',
}

/** Width of a card's picture, css px: cards grow from the sky to the lens. */
export const cardWidths: Record<DepthPlace, number> = { sky: 76, far: 82, middle: 88, near: 96, lens: 104, finish: 84 }
