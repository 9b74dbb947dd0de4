import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { fallFrom, pixelOf, writeMask } from './fall'

export type FrameParameters = {
  /** Size of the photo, px. */
  readonly width: number
  readonly height: number
  /** From the frame to where the mask begins to open. */
  readonly inset: number
  readonly softness: number
  /** 0-1: radius of the corners as a part of half the shorter side. */
  readonly roundness: number
}

/** Shut up to `inset` from the frame, open from `inset` + `softness` on. */
export const frameMask: Operation<FrameParameters> = {
  name: 'frameMask',
  run(context, { width, height, inset, softness, roundness }, _inputs, rect) {
    const radius = (roundness * Math.min(width, height)) / 2
    const { middle, half } = fallFrom(-inset - softness, softness, pixelOf(context))
    return writeMask(context, rect, (...at) => context.kernels.frameMask(...at, width, height, radius, middle, half))
  },
}

export function frameMaskNode(params: FrameParameters): GraphNode {
  return graphNode('frameMask', params)
}
