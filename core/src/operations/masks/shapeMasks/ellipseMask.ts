import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { fallFrom, pixelOf, writeMask } from './fall'

export type EllipseParameters = {
  /** Centre, photo px. */
  readonly x: number
  readonly y: number
  readonly radiusX: number
  readonly radiusY: number
  /** Degrees counter-clockwise. */
  readonly turn: number
  /** 0-1: part of the radius over which it falls at the rim. */
  readonly softness: number
}

/**
 * Open inside an ellipse. With q the distance from the centre in radii, it is 1 up to q = 1 - softness and falls to 0 at q = 1
 * by 1 - t² (3 - 2 t).
 */
export const ellipseMask: Operation<EllipseParameters> = {
  name: 'ellipseMask',
  run(context, { x, y, radiusX, radiusY, turn, softness }, _inputs, rect) {
    const { kernels } = context
    const radians = (turn * Math.PI) / 180
    const [cos, sin] = [kernels.cosine(radians), kernels.sine(radians)]
    const { middle, half } = fallFrom(1 - softness, softness, pixelOf(context) / Math.min(radiusX, radiusY))
    return writeMask(context, rect, (...at) => kernels.ellipseMask(...at, x, y, radiusX, radiusY, cos, sin, middle, half))
  },
}

export function ellipseMaskNode(params: EllipseParameters): GraphNode {
  return graphNode('ellipseMask', params)
}
