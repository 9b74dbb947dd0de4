import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { fallFrom, pixelOf, writeMask } from './fall'

export type LineParameters = {
  /** Where it is still open, photo px. */
  readonly x: number
  readonly y: number
  /** Where it is shut. */
  readonly toX: number
  readonly toY: number
}

/** Open before the first place and shut behind the second, with 1 - t² (3 - 2 t) of the way t between them. Equal places: open above. */
export const lineMask: Operation<LineParameters> = {
  name: 'lineMask',
  run(context, { x, y, toX, toY }, _inputs, rect) {
    const length = Math.sqrt((toX - x) ** 2 + (toY - y) ** 2)
    const [nx, ny] = length < 1e-3 ? [0, 1] : [(toX - x) / length, (toY - y) / length]
    const { middle, half } = fallFrom(0, length, pixelOf(context))
    return writeMask(context, rect, (...at) => context.kernels.lineMask(...at, x, y, nx, ny, false, middle, half))
  },
}

export function lineMaskNode({ x, y, toX, toY }: LineParameters): GraphNode {
  return graphNode('lineMask', { x, y, toX, toY })
}
