import { lengthControl, numberControl } from '../model/controls'
import type { PatternBox } from '../model/patternBox'

/** Where what falls or floats lies as a whole, and how large it is. */
export const placingControls = {
  enlarge: numberControl({ label: 'Enlarge', unit: '%', usual: [25, 400], hard: [10, 2000], step: 0.5 }).default(100),
  moveX: lengthControl({ label: 'Move sideways', usual: [-500, 500], hard: [-10000, 10000], step: 1 }).default(0),
  moveY: lengthControl({ label: 'Move down', usual: [-500, 500], hard: [-10000, 10000], step: 1 }).default(0),
}

/** As it comes. */
export const unmoved = { enlarge: 100, moveX: 0, moveY: 0 } as const

interface Placing {
  enlarge: number
  moveX: number
  moveY: number
}

/** Photo px that a box about such a pattern measures at 100 %, as part of the photo's width. */
const BOX = 0.12

/** The box about a pattern whose fixed point is the corner of the photo. @param isSeen whether these controls count */
export function placingBox<C extends { readonly shape: Placing }>(isSeen: (controls: C) => boolean): PatternBox<C> {
  return {
    paths: ['shape.enlarge', 'shape.moveX', 'shape.moveY'],
    lacks: ['stretch', 'turn'],
    read: (controls, { width }) => {
      if (!isSeen(controls)) return undefined
      const { moveX: x, moveY: y, enlarge } = controls.shape
      return { x, y, size: (BOX * width * enlarge) / 100, stretch: 1, turn: 0 }
    },
    write: ({ shape }, { x: moveX, y: moveY, size }, { width }) =>
      void Object.assign(shape, { moveX, moveY, enlarge: (100 * size) / (BOX * width) }),
  }
}
