import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { fallFrom, pixelOf, writeMask } from './fall'

export type BandParameters = {
  /** A place on the middle line, photo px. */
  readonly x: number
  readonly y: number
  /** Of the middle line, degrees counter-clockwise from the x axis. */
  readonly turn: number
  /** Of the open part, px. */
  readonly width: number
  /** Of the fall on each side, px. */
  readonly softness: number
}

/** Open up to half the width from a line, then a smooth fall. */
export const bandMask: Operation<BandParameters> = {
  name: 'bandMask',
  run(context, { x, y, turn, width, softness }, _inputs, rect) {
    const { kernels } = context
    const radians = (turn * Math.PI) / 180
    const { middle, half } = fallFrom(width / 2, softness, pixelOf(context))
    const [nx, ny] = [kernels.sine(radians), kernels.cosine(radians)]
    return writeMask(context, rect, (...at) => kernels.lineMask(...at, x, y, nx, ny, true, middle, half))
  },
}

export function bandMaskNode(params: BandParameters): GraphNode {
  return graphNode('bandMask', params)
}
