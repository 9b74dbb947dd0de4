import type { Kernels } from '../../../graph/operation'
import { enlargePlane, readToEnlarge } from '../../../planes/enlarge'
import { expand, intersect, sameRect, type Rect } from '../../../planes/rect'
import { withScratch, type Scratch } from '../../../planes/scratch'

// Wide blurs work on a reduced level whose grid is fixed to the picture: halved k times by [1 3 3 1] / 8
// (variance 3/4 px² each, in pixels of its level), blurred there by what is missing, and enlarged by a
// cubic, which adds no variance. Both are chosen so that the result stays within 1/255 of the exact one.

const DIRECT_UP_TO_SIGMA = 8
const LEAST_REDUCED_SIGMA = 2.6
const RADIUS_IN_SIGMAS = 3.6

interface Plan {
  /** Reduction, a power of two. */
  readonly factor: number
  /** Standard deviation on the reduced level, in its pixels. */
  readonly sigma: number
  readonly radius: number
}

function planFor(sigma: number): Plan {
  let factor = 1
  let reduced = sigma
  if (sigma > DIRECT_UP_TO_SIGMA) {
    for (let next = 4; next <= 64; next *= 2) {
      const rest = (sigma * sigma - (next * next - 1) / 4) / (next * next)
      if (rest < LEAST_REDUCED_SIGMA ** 2) break
      factor = next
      reduced = Math.sqrt(rest)
    }
  }
  return { factor, sigma: reduced, radius: Math.ceil(RADIUS_IN_SIGMAS * reduced) }
}

/** Pixels around a rectangle that a blur of `sigma` px reads. */
export function blurReach(sigma: number): number {
  const plan = planFor(sigma)
  return plan.factor === 1 ? plan.radius : plan.factor * (plan.radius + 6)
}

/**
 * Gaussian blur of one plane. `from` is the rectangle of `source`, which holds at least what `blurReach` asks for
 * where it is inside the picture; outside `from` its border repeats. `out` receives `rect`.
 */
export function blurPlane(kernels: Kernels, source: number, from: Rect, rect: Rect, sigma: number, out: number): void {
  const plan = planFor(sigma)
  withScratch(kernels, (scratch) => {
    if (plan.factor === 1) {
      const padded = expand(rect, plan.radius)
      convolve(kernels, scratch, extend(kernels, scratch, source, from, padded), rect, plan, out)
    } else blurReduced(kernels, scratch, source, from, rect, plan, out)
  })
}

function extend(kernels: Kernels, scratch: Scratch, source: number, from: Rect, to: Rect): number {
  const plane = scratch(to.width * to.height * 4)
  kernels.copyExtended(source, from.width, from.height, to.x - from.x, to.y - from.y, plane, to.width, to.height)
  return plane
}

/** `padded` covers `rect` grown by the radius. */
function convolve(kernels: Kernels, scratch: Scratch, padded: number, rect: Rect, plan: Plan, out: number): void {
  const width = rect.width + 2 * plan.radius
  const weights = scratch((plan.radius + 1) * 4)
  const columns = scratch(width * rect.height * 4)
  kernels.gaussianWeights(plan.sigma, plan.radius, weights)
  kernels.convolveColumns(padded, width, rect.height, weights, plan.radius, columns)
  kernels.convolveRows(columns, rect.width, rect.height, weights, plan.radius, out)
}

function blurReduced(kernels: Kernels, scratch: Scratch, source: number, from: Rect, rect: Rect, plan: Plan, out: number): void {
  const { factor } = plan
  const steps = { x: 1 / factor, y: 1 / factor }
  const reduced = readToEnlarge(rect, steps)
  const small = reduce(kernels, scratch, source, from, expand(reduced, plan.radius), factor)
  const blurred = scratch(reduced.width * reduced.height * 4)
  convolve(kernels, scratch, small, reduced, plan, blurred)
  enlargePlane(kernels, scratch, blurred, reduced, rect, steps, out)
}

/** Reduced pixels that lie this far outside the border hold nothing but the border. */
const BEYOND = 3

/** The pixels of a level that a rectangle at full size touches. */
function aroundOnLevel({ x, y, width, height }: Rect, factor: number): Rect {
  const [left, top] = [Math.floor(x / factor), Math.floor(y / factor)]
  return { x: left, y: top, width: Math.ceil((x + width) / factor) - left, height: Math.ceil((y + height) / factor) - top }
}

/** Halves again and again until `target`, given on the reduced level, is reached. */
function reduce(kernels: Kernels, scratch: Scratch, source: number, from: Rect, target: Rect, factor: number): number {
  if (factor === 1) return extend(kernels, scratch, source, from, target)
  // Far beyond the border there is nothing but the border: it is repeated here instead of at full size, where it would take far more room.
  const known = intersect(target, expand(aroundOnLevel(from, factor), BEYOND))
  if (!sameRect(known, target)) {
    const plane = reduce(kernels, scratch, source, from, known, factor)
    return extend(kernels, scratch, plane, known, target)
  }
  const finer = expand({ x: 2 * target.x, y: 2 * target.y, width: 2 * target.width, height: 2 * target.height }, 1)
  const plane = reduce(kernels, scratch, source, from, finer, factor / 2)
  const columns = scratch(finer.width * target.height * 4)
  const halved = scratch(target.width * target.height * 4)
  kernels.halveColumns(plane, finer.width, target.height, columns)
  kernels.halveRows(columns, target.width, target.height, halved)
  return halved
}
