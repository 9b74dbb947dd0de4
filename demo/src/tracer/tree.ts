import type { Box, Hit, Shape } from './shapes'
import type { Vector } from './vector'

/** Nearest hit of a ray with any of the shapes. */
export type Intersect = (origin: Vector, direction: Vector, near: number, far: number) => (Hit & { shape: Shape }) | undefined

interface Node {
  readonly bounds: Box
  readonly shapes?: readonly Shape[]
  readonly children?: readonly [Node, Node]
}

/** A tree of bounding boxes over the shapes, split at the median of the longest side. */
export function buildTree(shapes: readonly Shape[]): Intersect {
  const root = build(shapes)
  return (origin, direction, near, far) => {
    const inverse: Vector = [1 / direction[0], 1 / direction[1], 1 / direction[2]]
    let best: (Hit & { shape: Shape }) | undefined
    const visit = (node: Node): void => {
      if (!meets(node.bounds, origin, inverse, near, best?.t ?? far)) return
      for (const shape of node.shapes ?? []) {
        const hit = shape.intersect(origin, direction, near, best?.t ?? far)
        if (hit) best = { t: hit.t, normal: hit.normal, shape }
      }
      if (node.children) {
        visit(node.children[0])
        visit(node.children[1])
      }
    }
    visit(root)
    return best
  }
}

function build(shapes: readonly Shape[]): Node {
  const bounds = around(shapes)
  if (shapes.length <= 3) return { bounds, shapes }
  const sides = [0, 1, 2].map((axis) => (bounds.most[axis] ?? 0) - (bounds.least[axis] ?? 0))
  const axis = sides.indexOf(Math.max(...sides))
  const middle = (shape: Shape): number => (shape.bounds.least[axis] ?? 0) + (shape.bounds.most[axis] ?? 0)
  const sorted = [...shapes].sort((a, b) => middle(a) - middle(b))
  const half = sorted.length >> 1
  return { bounds, children: [build(sorted.slice(0, half)), build(sorted.slice(half))] }
}

function around(shapes: readonly Shape[]): Box {
  const pick = (corner: 'least' | 'most', choose: (...values: number[]) => number): Vector =>
    [0, 1, 2].map((axis) => choose(...shapes.map((shape) => shape.bounds[corner][axis] ?? 0))) as unknown as Vector
  return { least: pick('least', Math.min), most: pick('most', Math.max) }
}

function meets({ least, most }: Box, origin: Vector, inverse: Vector, near: number, far: number): boolean {
  const ax = (least[0] - origin[0]) * inverse[0]
  const bx = (most[0] - origin[0]) * inverse[0]
  const ay = (least[1] - origin[1]) * inverse[1]
  const by = (most[1] - origin[1]) * inverse[1]
  const az = (least[2] - origin[2]) * inverse[2]
  const bz = (most[2] - origin[2]) * inverse[2]
  const enter = Math.max(near, Math.min(ax, bx), Math.min(ay, by), Math.min(az, bz))
  return enter <= Math.min(far, Math.max(ax, bx), Math.max(ay, by), Math.max(az, bz))
}
