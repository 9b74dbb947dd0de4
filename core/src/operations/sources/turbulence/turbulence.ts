import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'

/** Turbulence of W3C Filter Effects. Frequencies in waves a photo px. */
export type TurbulenceParameters = {
  /** `smooth` is fractalNoise of the recommendation, `billowed` is turbulence. */
  readonly type: 'smooth' | 'billowed'
  readonly frequencyX: number
  readonly frequencyY: number
  readonly octaves: number
  readonly seed: number
  /** Which of its four channels. */
  readonly channel: 'red' | 'green' | 'blue' | 'alpha'
  /** How far it is moved, photo px; what is tiled stays. */
  readonly move?: { readonly x: number; readonly y: number }
  /** A tile, photo px, that repeats without a seam; null for none. */
  readonly tile: { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | null
}

const channels = ['red', 'green', 'blue', 'alpha'] as const

/**
 * One channel of the gradient noise of W3C Filter Effects Level 1, feTurbulence, as a field 0-1; at full size exactly that of its reference code. At a
 * reduced scale octaves that are too fine to be shown give way to their mean.
 */
export const turbulence: Operation<TurbulenceParameters> = {
  name: 'turbulence',
  run({ kernels, grid, plane }, { type, frequencyX, frequencyY, octaves, seed, channel, tile, move = { x: 0, y: 0 } }, _inputs, rect) {
    const out = plane(rect.width * rect.height)
    const { x = 0, y = 0, width = 1, height = 1 } = tile ?? {}
    const area = [rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const
    const billowed = type === 'billowed'
    kernels.turbulence(
      channels.indexOf(channel),
      out,
      ...area,
      frequencyX,
      frequencyY,
      octaves,
      seed,
      billowed,
      tile !== null,
      x,
      y,
      width,
      height,
      move.x,
      move.y,
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

export function turbulenceNode(params: TurbulenceParameters): GraphNode {
  return graphNode('turbulence', params)
}
