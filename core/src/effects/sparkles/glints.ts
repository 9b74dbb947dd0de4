import { chance } from '../../graph/chance'
import type { EffectScene } from '../effectDefinition'
import type { SparkleControls } from './definition'

/** One glint: its place in photo px, its size against the others, its own rotation in degrees, and what its unevenness starts from. */
export interface Glint {
  readonly x: number
  readonly y: number
  readonly size: number
  readonly turn: number
  readonly seed: number
}

/** The glints of an effect: at their places, or as many as wanted all over the frame. */
export function glintsOf({ pattern, shape }: SparkleControls, { width, height }: Pick<EffectScene, 'width' | 'height'>): Glint[] {
  const { seed, sizeSpread } = pattern
  const glint = (x: number, y: number, size: number, turn: number, index: number): Glint => {
    const u = chance(seed, index, 2)
    // Few large ones, many small ones.
    const own = 1 - (sizeSpread / 100) * (1 - u * u) * 0.92
    return {
      x,
      y,
      size: size * own,
      turn: turn + (shape.turnScatter / 100) * 180 * (chance(seed, index, 3) - 0.5),
      seed: Math.floor(chance(seed, index, 4) * 1e6),
    }
  }
  if (pattern.by === 'placed') return pattern.places.map(({ x, y, size, turn }, index) => glint(x, y, size / 100, turn, index))
  return Array.from({ length: pattern.count }, (_, index) =>
    glint(width * chance(seed, index, 0), height * chance(seed, index, 1), 1, 0, index),
  )
}
