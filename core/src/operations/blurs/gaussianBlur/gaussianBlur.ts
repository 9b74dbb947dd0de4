import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, type Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'
import { SMALL_PICTURE } from '../../smallPicture'
import { blurPlane, blurReach } from './blurPlane'

const SPREAD_GOES_AT = 0.5
/** A blur is as good on a coarser grid on which it still has so many pixels of standard deviation. */
const SIGMA_ON_COARSE = 4
/** Pitch at which what is blurred is computed, unless small bright things in it count. */
const FINEST = 4

type GaussianParameters = {
  readonly sigma: number
  /** The coarsest pitch, photo px, that its input may be read at: small bright things beneath it need finer ones. */
  readonly finest?: number
}

/** Gaussian blur of standard deviation `sigma` photo px; the picture's border repeats outside. */
export const gaussianBlur: Operation<GaussianParameters> = {
  name: 'gaussianBlur',
  pitch: ({ sigma }) => sigma / SIGMA_ON_COARSE,
  finest: ({ finest = FINEST }) => finest,
  need(params, rect, grid) {
    return expand(rect, blurReach(sigmaOnGrid(params, grid)))
  },
  block(params, grid) {
    const reach = blurReach(sigmaOnGrid(params, grid))
    if (readsMost(reach, grid)) return Math.max(grid.width, grid.height)
    return reach > WIDE_REACH ? LARGE_BLOCK : undefined
  },
  run(context, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const sigma = sigmaOnGrid(params, context.grid)
    // A blur of half a pixel and more evens out what varies inside a pixel; a smaller one leaves it.
    const keepsSpread = input.kind !== 'field' || sigma < SPREAD_GOES_AT
    const planes = (keepsSpread ? input.planes : input.planes.slice(0, 1)).map((plane) => blurInto(context, plane, input.rect, rect, sigma))
    return { kind: input.kind, rect, planes }
  },
}

/** A blur that reaches farther than this works on larger blocks, grid px: of a small one it would read far more than it gives. */
const WIDE_REACH = 256
const LARGE_BLOCK = 1024
const TYPICAL_TILE = 320

/** Whether a small picture is blurred as a whole, since most of it is read for each block anyway. */
function readsMost(reach: number, { width, height }: Grid): boolean {
  const side = TYPICAL_TILE + 2 * reach
  return width * height <= SMALL_PICTURE && Math.min(side, width) * Math.min(side, height) > 0.3 * width * height
}

/** `input` blurred, or `input` itself when there is nothing to do. */
export function gaussianBlurNode(input: GraphNode, sigma: number, finest?: number): GraphNode {
  return sigma > 0 ? graphNode('gaussianBlur', { sigma, ...(finest === undefined ? {} : { finest }) }, [input]) : input
}

/** A blur wider than the picture is long is taken as one of that width: there is nothing left to blur. */
function sigmaOnGrid(params: GaussianParameters, grid: Grid): number {
  return Math.min(params.sigma, Math.max(grid.width * grid.pitchX, grid.height * grid.pitchY)) / pitchOf(grid)
}

function blurInto(context: RunContext, plane: number, from: Rect, rect: Rect, sigma: number): number {
  const out = context.plane(rect.width * rect.height)
  blurPlane(context.kernels, plane, from, rect, sigma, out)
  return out
}
