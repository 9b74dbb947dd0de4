import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { fallFrom, pixelOf, writeMask } from './fall'

export type FrameParameters = {
  /** Middle and size of the frame, photo px, and by how much the photo is turned in it, degrees counter-clockwise. */
  readonly x: number
  readonly y: number
  readonly turn: number
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
  run(context, { x, y, turn, width, height, inset, softness, roundness }, _inputs, rect) {
    const { kernels } = context
    const radians = (turn * Math.PI) / 180
    const [cos, sin] = [kernels.cosine(radians), kernels.sine(radians)]
    const radius = (roundness * Math.min(width, height)) / 2
    const { middle, half } = fallFrom(-inset - softness, softness, pixelOf(context))
    return writeMask(context, rect, (...at) => kernels.frameMask(...at, x, y, width, height, cos, sin, radius, middle, half))
  },
}

export function frameMaskNode(params: FrameParameters): GraphNode {
  return graphNode('frameMask', params)
}
