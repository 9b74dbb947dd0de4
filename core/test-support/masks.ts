import type { Evaluator } from '../src/graph/evaluator'
import type { GraphNode } from '../src/graph/node'
import { newMask } from '../src/masks/newMask'
import type { Mask, MaskKind } from '../src/masks/registry'
import { noMarks } from '../src/model/marks'
import { plane } from '../src/operations/plane'
import { gridAt, gridBounds, type Size } from '../src/planes/grid'

/** Values 0-1 of a node's first plane over the whole picture. */
export function planeOf(evaluator: Evaluator, node: GraphNode, photo: Size, scale = 1): Float32Array {
  const grid = gridAt(photo, scale)
  const value = evaluator.evaluate(node, gridBounds(grid), grid)
  return new Float32Array(evaluator.kernels.memory.buffer, plane(value, 0), grid.width * grid.height).slice()
}

/** A mask of a kind with some of its values set. */
export function maskOf<K extends MaskKind>(
  photo: Size,
  kind: K,
  part: Partial<Extract<Mask, { kind: K }>> = {},
): Extract<Mask, { kind: K }> {
  return { ...newMask(photo, { kind, id: kind, join: 'keep', marks: noMarks }), ...part } as Extract<Mask, { kind: K }>
}

/** 1 - t² (3 - 2 t), t clamped to 0-1. */
export function fall(t: number): number {
  const s = Math.min(1, Math.max(0, t))
  return 1 - s * s * (3 - 2 * s)
}

export function greatestDifference(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let most = 0
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs((a[i] ?? 0) - (b[i] ?? 0)))
  return most
}
