import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, type Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'
import { motionReach, motionTaps } from './motionTaps'

export { motionReach }

type MotionParameters = {
  /** Total length of the smear in photo px. */
  readonly length: number
  /** Degrees counter-clockwise from the x axis. */
  readonly angle: number
}

/** Mean along a straight line centred on each pixel; the picture's border repeats outside. */
export const motionBlur: Operation<MotionParameters> = {
  name: 'motionBlur',
  need(params, rect, grid) {
    return expand(rect, motionReach(lengthOnGrid(params, grid)))
  },
  run(context, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const length = lengthOnGrid(params, context.grid)
    const planes = (input.kind === 'field' ? input.planes.slice(0, 1) : input.planes).map((plane) =>
      smear(context, plane, input.rect, rect, length, params.angle),
    )
    return { kind: input.kind, rect, planes }
  },
}

/** `input` smeared, or `input` itself when the length is 0. */
export function motionBlurNode(input: GraphNode, length: number, angle: number): GraphNode {
  return length > 0 ? graphNode('motionBlur', { length, angle }, [input]) : input
}

function lengthOnGrid(params: MotionParameters, grid: Grid): number {
  return params.length / pitchOf(grid)
}

function smear(context: RunContext, plane: number, from: Rect, rect: Rect, length: number, angle: number): number {
  const { kernels, scratch } = context
  const reach = motionReach(length)
  const padded = expand(rect, reach)
  const extended = scratch(padded.width * padded.height * 4)
  const { x, y } = { x: padded.x - from.x, y: padded.y - from.y }
  kernels.copyExtended(plane, from.width, from.height, x, y, extended, padded.width, padded.height)
  const taps = motionTaps(kernels, length, angle)
  const block = scratch(taps.length * 12)
  const integers = new Int32Array(kernels.memory.buffer, block, taps.length * 3)
  const floats = new Float32Array(kernels.memory.buffer, block, taps.length * 3)
  taps.forEach((tap, i) => {
    integers[3 * i] = tap.dx + reach
    integers[3 * i + 1] = tap.dy + reach
    floats[3 * i + 2] = tap.weight
  })
  const out = context.plane(rect.width * rect.height)
  // `plane` may have grown the memory; the block itself stays where it is.
  kernels.convolveTaps(extended, padded.width, block, taps.length, out, rect.width, rect.height)
  return out
}
