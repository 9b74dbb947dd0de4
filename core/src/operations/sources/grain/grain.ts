import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { steady } from '../../../graph/steady'
import { inputAt, plane } from '../../plane'

type NoiseParameters = {
  readonly seed: number
  readonly coloured: boolean
  /** Sigma of a grain, photo px. */
  readonly size: number
}

/** A cell of noise is no smaller than this part of a grain: what is finer would not be seen, and take time. */
const CELLS = 3

/**
 * Noise of grains, mean 0 and standard deviation 1 at full size, in all channels alike or in each its own; on a reduced grid the mean of what lies in each pixel. Not blurred by an
 * operation of its own: what is smaller than a pixel of the grid would be lost.
 */
export const grainNoise: Operation<NoiseParameters> = {
  name: 'grainNoise',
  run({ kernels, grid, plane: make, scratch }, { seed, coloured, size }, _inputs, rect) {
    const { x, y, width, height } = rect
    const cell = Math.max(1, size / CELLS)
    const [pitchX, pitchY, sigma] = [grid.pitchX / cell, grid.pitchY / cell, size / cell]
    const count = width * height
    const planes = [0, 1, 2].map(() => make(count))
    const room = scratch(kernels.smoothNoiseBytes(width, height, pitchX, pitchY, sigma))
    planes.forEach((out, channel) => {
      if (coloured || channel === 0) kernels.smoothNoise(out, x, y, width, height, pitchX, pitchY, seed + 7919 * channel, sigma, room)
      else kernels.copyPart(planes[0] ?? out, width, 0, 0, out, width, 0, 0, width, height)
    })
    return { kind: 'tones', rect, planes }
  },
}

type SumParameters = { readonly first: number; readonly second: number; readonly offset: number }

/** Two pictures, each times a factor, and an offset, added up; not clamped. */
export const weightedSum: Operation<SumParameters> = {
  name: 'weightedSum',
  run(context, { first, second, offset }, inputs, rect) {
    const count = rect.width * rect.height
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      const other = inputs[1] ? plane(inputs[1], channel) : 0
      context.kernels.weightedSum(plane(inputAt(inputs, 0), channel), first, other, second, offset, count, out)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export interface GrainOptions {
  readonly seed: number
  readonly coloured: boolean
  /** Sigma of a grain, photo px. */
  readonly size: number
  /** Standard deviation, 0-1. */
  readonly deviation: number
  /** 0-1: how much of it lies in clumps of three times the size. */
  readonly clumping: number
}

const CLUMP = 3

/** Grain about mid-grey: white noise that is blurred, and as strong as before. */
export function grainNode({ seed, coloured, size, deviation, clumping }: GrainOptions): GraphNode {
  const share = deviation / Math.sqrt((1 - clumping) ** 2 + clumping ** 2)
  const noise = (own: number, sigma: number): GraphNode => graphNode('grainNoise', { seed: own, coloured, size: sigma })
  const sums = { first: steady(share * (1 - clumping)), second: steady(share * clumping), offset: 0.5 }
  const inputs = clumping === 0 ? [noise(seed, size)] : [noise(seed, size), noise(seed + 104729, CLUMP * size)]
  return graphNode('weightedSum', sums, inputs)
}
