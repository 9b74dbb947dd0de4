import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'

/** Straight beams. Lengths in photo px, parts 0-1. */
export type ShaftParameters = {
  /** Middle of the edge they come from, half its width, and where they go: degrees counter-clockwise, and how far. */
  readonly x: number
  readonly y: number
  readonly half: number
  readonly angle: number
  readonly length: number
  /** Width where they land against the width they come from. */
  readonly opening: number
  readonly count: number
  readonly uneven: number
  readonly soft: number
  readonly fade: number
  readonly noise: number
  readonly noiseSize: number
  readonly seed: number
  readonly phase: number
}

/** Straight beams with soft edges that fade along their way, broken up by slow noise, as a field. */
export const shafts: Operation<ShaftParameters> = {
  name: 'shafts',
  run({ kernels, grid, plane }, p, _inputs, rect) {
    const out = plane(rect.width * rect.height)
    const radians = (p.angle * Math.PI) / 180
    kernels.drawShafts(
      ...([out, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY, p.x, p.y, Math.max(0.5, p.half)] as const),
      ...([kernels.cosine(radians), -kernels.sine(radians), Math.max(1, p.length), Math.max(0.01, p.opening), p.count, p.uneven] as const),
      ...([p.soft, p.fade, p.noise, Math.max(1, p.noiseSize), p.seed | 0, p.phase] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

export function shaftsNode(params: ShaftParameters): GraphNode {
  return graphNode('shafts', params)
}
