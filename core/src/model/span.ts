import type { z } from 'zod'
import type { Size } from '../planes/grid'
import { controlOf, limitsOf, nearestNumber } from './controls'
import { lengthFactor } from './lengths'
import { rolesOf } from './roles'

/**
 * What a slider covers on a photo: lengths as they grow with its megapixels, places over its sides and half as far beyond, all else its usual range; in whole steps.
 * Undefined for what has no control.
 */
export function spanOf(schema: z.ZodType, photo: Size): readonly [least: number, most: number] | undefined {
  const control = controlOf(schema)
  if (!control) return undefined
  const { measures } = rolesOf(schema)
  const [least, most] = control.usual
  if (measures === 'x' || measures === 'y') {
    const side = measures === 'x' ? photo.width : photo.height
    // A place may lie outside of the frame; a side may not.
    return least > 0 ? [least, side] : [-side / 2, 1.5 * side]
  }
  if (measures !== 'length') return control.usual
  const factor = lengthFactor(photo)
  const limits = limitsOf(schema)
  const fitted = (value: number): number =>
    Number(nearestNumber(Math.round((value * factor) / control.step) * control.step, limits).toFixed(4))
  return [fitted(least), Math.max(fitted(most), fitted(least) + control.step)]
}
