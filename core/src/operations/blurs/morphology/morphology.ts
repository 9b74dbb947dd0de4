import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, type Rect } from '../../../planes/rect'
import type { Value } from '../../../planes/value'
import { inputAt, plane } from '../../plane'

export type MorphologyParameters = {
  /** Photo px; above 0 the maximum is taken, below 0 the minimum. */
  readonly radius: number
  readonly window: 'disc' | 'square'
}

/** Maximum or minimum over a disc or a square about each pixel; the border repeats. Between two whole radii the results are blended. */
export const morphology: Operation<MorphologyParameters> = {
  name: 'morphology',
  need(params, rect, grid) {
    return expand(rect, Math.ceil(radiusOnGrid(params, grid)))
  },
  run(context, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const radius = radiusOnGrid(params, context.grid)
    const parts = params.radius > 0 && input.kind === 'field' && input.planes[1] !== undefined
    const whole = Math.floor(radius)
    const part = radius - whole
    // What covers only part of a pixel is as bright there as it is.
    const peaks = parts ? peakOf(context, input) : undefined
    const planes = input.planes.slice(0, input.kind === 'field' ? 1 : undefined).map((own) => {
      const source = peaks ?? own
      const extremeOf = (r: number): number => extreme(context, source, input.rect, rect, r, params)
      const [less, more] = [extremeOf(whole), part > 0 ? extremeOf(whole + 1) : 0]
      const out = context.plane(rect.width * rect.height)
      context.kernels.blendPlanes(less, more || less, rect.width * rect.height, part, out)
      return out
    })
    return { kind: input.kind, rect, planes }
  },
}

/** `input` grown (radius above 0) or shrunk, or `input` itself at 0. */
export function morphologyNode(input: GraphNode, radius: number, window: MorphologyParameters['window'] = 'disc'): GraphNode {
  return radius === 0 ? input : graphNode('morphology', { radius, window }, [input])
}

/** The intensity that covers part of each pixel. */
function peakOf(context: RunContext, input: Value): number {
  const count = input.rect.width * input.rect.height
  const out = context.scratch(count * 4)
  context.kernels.peakPlane(plane(input, 0), plane(input, 1), count, out)
  return out
}

function radiusOnGrid({ radius }: MorphologyParameters, grid: Grid): number {
  return Math.abs(radius) / pitchOf(grid)
}

/** @param from the part of the picture that `source` is: all that lies within reach, as far as there is a picture */
function extreme(context: RunContext, source: number, from: Rect, rect: Rect, radius: number, params: MorphologyParameters): number {
  const { kernels, scratch } = context
  const out = scratch(rect.width * rect.height * 4)
  const [top, left] = [rect.y - from.y, rect.x - from.x]
  const minimum = params.radius < 0
  if (params.window === 'square') {
    // A window beyond the whole picture sees no more of it.
    const side = Math.min(radius, Math.max(from.width, from.height))
    const room = (): number => scratch(4 * Math.max(rect.width * (rect.height + 2 * side), rect.width + 2 * side))
    const [forth, back, lines] = [room(), room(), scratch(from.height * rect.width * 4)]
    kernels.squareExtreme(
      source,
      ...([from.width, from.height, left, top, rect.width, rect.height] as const),
      ...([side, minimum, forth, back, lines, out] as const),
    )
    return out
  }
  const reach = Math.min(radius, from.width)
  const width = rect.width + 2 * reach
  const extended = scratch(width * from.height * 4)
  kernels.copyExtended(source, from.width, from.height, left - reach, 0, extended, width, from.height)
  const widths = scratch((radius + 1) * 4)
  const halfWidths = new Int32Array(kernels.memory.buffer, widths, radius + 1)
  for (let dy = 0; dy <= radius; dy++) halfWidths[dy] = Math.min(reach, Math.floor(Math.sqrt(radius * radius - dy * dy)))
  kernels.discExtreme(
    extended,
    ...([rect.width, reach, from.height, top, rect.height] as const),
    ...([radius, widths, minimum, scratch(rect.width * 4), out] as const),
  )
  return out
}
