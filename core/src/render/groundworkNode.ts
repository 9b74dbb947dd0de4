import { adjustControls, adjusted, noAdjustment, type AdjustControls } from '../effects/adjust/adjusted'
import type { GraphNode } from '../graph/node'
import type { Groundwork, NoiseControls, Repair } from '../model/groundwork'
import { evenFit, fitLengths, lengthFactor } from '../model/lengths'
import type { Size } from '../planes/grid'
import { mendSpotsNode, type MendedSpot } from '../operations/groundwork/mendSpots/mendSpots'
import { takeNoiseNode } from '../operations/groundwork/takeNoise/takeNoise'

/** Tones at which a photo stays as it is, with lengths for its size. */
export function startingTone(photo: Size): AdjustControls {
  return fitLengths(adjustControls, noAdjustment, evenFit(lengthFactor(photo)))
}

/** Standard deviation of the noise that 100 % takes out, sRGB-encoded. */
const MOST_NOISE = 0.12

/** The photo with what is done to it before all effects: noise first, which is even only in the photo as it came, then repairs, then tones. */
export function groundworkNode(photo: GraphNode, groundwork: Groundwork | undefined): GraphNode {
  if (!groundwork) return photo
  const { noise, repairs, tone } = groundwork
  const mended = mendSpotsNode(takeNoiseNode(photo, noiseOf(noise)), repairs.map(spotOf))
  return tone ? adjusted(mended, tone) : mended
}

function noiseOf({ luminance, colour }: NoiseControls): { readonly luminance: number; readonly colour: number } {
  return { luminance: (MOST_NOISE * luminance) / 100, colour: (MOST_NOISE * colour) / 100 }
}

function spotOf({ x, y, radius, fromX, fromY, soft, keeps }: Repair): MendedSpot {
  return { x, y, radius, shiftX: fromX - x, shiftY: fromY - y, soft: soft / 100, tonesOnly: keeps === 'texture' }
}
