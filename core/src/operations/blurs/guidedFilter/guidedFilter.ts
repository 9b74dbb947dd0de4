import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, type Rect } from '../../../planes/rect'
import type { Value } from '../../../planes/value'
import { toneChannels } from '../../masks/luminosityMask/luminosityMask'
import { inputAt, plane } from '../../plane'

export type GuidedParameters = {
  /** Half the side of the window less half a pixel, photo px. */
  readonly radius: number
  /** Variance of the guide below which an edge is smoothed away. */
  readonly epsilon: number
}

/** Edges of a contrast above about 3 % of full scale are followed. */
const EPSILON = 0.03 ** 2
/** The values are rounded to this part, so that their products are exact in 32-bit floats. */
const STEPS = 4096
/** a and b of the filter are rounded to this part. */
const COEFFICIENT_STEPS = 65536

/**
 * Half the sides of a window to a pixel of the grid that its coefficients are computed on. They are means over windows, so a coarser grid loses hardly anything: the fast guided
 * filter, He and Sun 2015 (arXiv 1505.00996), who go down to a quarter of the radius.
 */
const PIXELS_OF_WINDOW = 6

/**
 * How a mask (input 0) follows the encoded luma of tones (input 1) in windows about each place, as two planes a and b, of which the result is a times the luma plus b: He, Sun and
 * Tang 2010. Windows are square; borders repeat. A window that is not a whole number of grid pixels wide counts its outermost ring in part, to a sixteenth.
 */
export const guidedCoefficients: Operation<GuidedParameters> = {
  name: 'guidedCoefficients',
  pitch: ({ radius }) => radius / PIXELS_OF_WINDOW,
  need(params, rect, grid) {
    return expand(rect, 2 * windowOf(params, grid).reach)
  },
  run(context, params, inputs, rect) {
    const { kernels, scratch } = context
    const window = windowOf(params, context.grid)
    const wide = expand(rect, 2 * window.reach)
    const middle = expand(rect, window.reach)
    const guide = scratch(area(wide) * 4)
    const input = scratch(area(wide) * 4)
    const product = scratch(area(wide) * 4)
    extendRounded(context, lumaOf(context, inputAt(inputs, 1)), inputAt(inputs, 1).rect, wide, guide)
    extendRounded(context, plane(inputAt(inputs, 0), 0), inputAt(inputs, 0).rect, wide, input)
    const mean = (source: number, from: Rect, to: Rect, steps: number, out = scratch(area(to) * 4)): number => {
      kernels.boxMean(source, to.width, to.height, window.radius, window.part, steps, scratch((from.width + 4) * 8), out)
      return out
    }
    const meanGuide = mean(guide, wide, middle, STEPS)
    const meanInput = mean(input, wide, middle, STEPS)
    kernels.multiplyPlanes(guide, input, area(wide), product)
    const a = mean(product, wide, middle, STEPS * STEPS)
    kernels.multiplyPlanes(guide, guide, area(wide), product)
    const b = mean(product, wide, middle, STEPS * STEPS)
    kernels.guidedCoefficients(meanGuide, meanInput, a, b, area(middle), params.epsilon)
    const planes = [a, b].map((plane) => {
      kernels.roundPlane(plane, area(middle), COEFFICIENT_STEPS, plane)
      return mean(plane, middle, rect, COEFFICIENT_STEPS, context.plane(area(rect)))
    })
    return { kind: 'parts', rect, planes }
  },
}

/** A mask that follows tones: coefficients (input 0) times the encoded luma of the tones (input 1), clamped. */
export const guidedFilter: Operation = {
  name: 'guidedFilter',
  run(context, _params, inputs, rect) {
    const [coefficients, tones] = [inputAt(inputs, 0), inputAt(inputs, 1)]
    const count = area(rect)
    const guide = context.scratch(count * 4)
    context.kernels.roundPlane(lumaOf(context, tones), count, STEPS, guide)
    const out = context.plane(count)
    context.kernels.guidedResult(plane(coefficients, 0), plane(coefficients, 1), guide, count, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

/** `mask` moved to the edges of `guide`, or `mask` itself at a radius of 0. */
export function guidedFilterNode(mask: GraphNode, guide: GraphNode, radius: number, epsilon = EPSILON): GraphNode {
  if (radius <= 0) return mask
  return graphNode('guidedFilter', {}, [graphNode('guidedCoefficients', { radius, epsilon }, [mask, guide]), guide])
}

function windowOf({ radius }: GuidedParameters, grid: Grid): { radius: number; part: number; reach: number } {
  const sixteenths = Math.round((radius / pitchOf(grid)) * 16)
  const whole = Math.floor(sixteenths / 16)
  return { radius: whole, part: sixteenths % 16, reach: whole + 1 }
}

function area(rect: Rect): number {
  return rect.width * rect.height
}

function lumaOf(context: RunContext, tones: Value): number {
  const count = area(tones.rect)
  const luma = context.scratch(count * 4)
  context.kernels.tonePlane(toneChannels.indexOf('encodedLuma'), plane(tones, 0), plane(tones, 1), plane(tones, 2), count, luma)
  return luma
}

function extendRounded({ kernels }: RunContext, source: number, from: Rect, to: Rect, out: number): void {
  kernels.copyExtended(source, from.width, from.height, to.x - from.x, to.y - from.y, out, to.width, to.height)
  kernels.roundPlane(out, to.width * to.height, STEPS, out)
}
