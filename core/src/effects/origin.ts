import { followControl, placeControl } from '../model/controls'
import { markedPoint, type SceneMarks } from '../model/marks'
import type { EffectPlace } from './effectDefinition'

/** Where light comes from: a place of its own or a mark of the scene; it may lie outside the frame. */
export const originControls = {
  follows: followControl(),
  x: placeControl('x', 'Origin', { byHand: true }),
  y: placeControl('y', 'Origin', { byHand: true }),
}

export const originPlace: EffectPlace = { label: 'Origin', x: 'pattern.x', y: 'pattern.y', follows: 'pattern.follows' }

/** Any light of the scene; as long as there is none, the effect's own place counts. */
export const FIRST_LIGHT = 'first light'

interface Origin {
  readonly follows: string | null
  readonly x: number
  readonly y: number
}

export function originOf({ follows, x, y }: Origin, marks: SceneMarks): { x: number; y: number } {
  const { x: markX, y: markY } = markedPoint(marks, follows) ?? { x, y }
  return { x: markX, y: markY }
}
