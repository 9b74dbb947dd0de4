import { coarserGrid, finerGrid, gridBounds, type Grid } from '../planes/grid'
import { clampInto, union, type Rect } from '../planes/rect'
import type { Value } from '../planes/value'
import type { GraphNode } from './node'
import type { Kernels, Operation, Operations } from './operation'

/** What is computed of one node for a rectangle of the picture: all that its readers need of it, at once. */
export interface Step {
  readonly node: GraphNode
  readonly operation: Operation
  readonly rect: Rect
  /** The value, if it is there already. */
  readonly known: Value | undefined
  /** What it reads of each input; without a step where that is a plan of its own. Nothing if it does not come from inputs on this grid. */
  readonly reads: readonly { readonly rect: Rect; readonly step: Step | undefined }[]
  /** How many steps read it. */
  readonly readers: number
}

/** Rectangles whose union is so many times what they cover are computed apart. */
const FAR_APART = 1.5

/** Nodes that each come after what they read, by the last of them. */
const orders = new WeakMap<GraphNode, readonly GraphNode[]>()

export function orderOf(root: GraphNode): readonly GraphNode[] {
  const known = orders.get(root)
  if (known) return known
  const order: GraphNode[] = []
  const seen = new Set<string>()
  const visit = (node: GraphNode): void => {
    if (seen.has(node.key)) return
    seen.add(node.key)
    node.inputs.forEach(visit)
    order.push(node)
  }
  visit(root)
  orders.set(root, order)
  return order
}

interface Want {
  readonly rect: Rect
  readonly readers: number
}

/** Plans how nodes are computed. What they are follows from the operations that it is handed. */
export class Planner {
  private readonly pitches = new WeakMap<GraphNode, number>()

  constructor(
    readonly operations: Operations,
    private readonly kernels: Kernels,
  ) {}

  /**
   * The steps to a node on a rectangle, each after what it reads. From the last node back each one's readers say what they need of it, so that it is computed
   * once, on the smallest rectangle that holds all of that.
   * @param find a value that is kept and covers the rectangle
   */
  planFor(root: GraphNode, rect: Rect, grid: Grid, find: (node: GraphNode, rect: Rect) => Value | undefined): readonly Step[] {
    const wanted = new Map<string, Want>([[root.key, { rect, readers: 1 }]])
    const drafts: Draft[] = []
    const order = orderOf(root)
    for (let i = order.length - 1; i >= 0; i--) {
      const node = order[i]
      const want = node && wanted.get(node.key)
      if (!node || !want) continue
      const operation = this.operations.named(node.operation)
      const known = find(node, want.rect)
      const fromInputs = !known && !this.coarserGridOf(node, grid) && (node === root || !operation.block?.(node.params, grid))
      const reads = fromInputs ? readsOf(node, operation, want.rect, grid, this.kernels, wanted) : []
      drafts.push({ node, operation, known, reads, ...want })
    }
    const steps = new Map<string, Step>()
    for (const { reads, ...draft } of drafts.reverse()) {
      steps.set(draft.node.key, {
        ...draft,
        reads: reads.map(({ key, rect }) => ({ rect, step: key === undefined ? undefined : steps.get(key) })),
      })
    }
    return [...steps.values()]
  }

  /** Whether a node is the picture up to an effect. */
  isStage(node: GraphNode): boolean {
    return (node.isStage ?? this.operations.named(node.operation).isStage) === true
  }

  /** Side of the blocks that a node is computed in, if it has blocks of its own, grid px. */
  sideOf(node: GraphNode, grid: Grid): number | undefined {
    return this.operations.named(node.operation).block?.(node.params, grid)
  }

  /** The coarser grid that a node is computed on where it is wanted on `grid`, if it is. */
  coarserGridOf(node: GraphNode, grid: Grid): Grid | undefined {
    const pitch = this.coarsestPitch(node)
    return pitch > 0 && pitch < Infinity ? coarserGrid(grid, pitch) : undefined
  }

  /** The coarsest pitch, photo px, at which a grid holds all there is in a node; 0 where it holds fine things, infinite for what is the same everywhere. */
  private coarsestPitch(node: GraphNode): number {
    const known = this.pitches.get(node)
    if (known !== undefined) return known
    const { pitch, keepsSmooth } = this.operations.named(node.operation)
    const found = pitch ? pitch(node.params) : keepsSmooth ? Math.min(...node.inputs.map((input) => this.coarsestPitch(input))) : 0
    this.pitches.set(node, found)
    return found
  }
}

type Draft = Omit<Step, 'reads'> & { readonly reads: readonly Read[] }

interface Read {
  readonly rect: Rect
  /** Key of the input; nothing if it is a plan of its own. */
  readonly key: string | undefined
}

/** What a node reads of its inputs; adds it to what is wanted of them. */
function readsOf(node: GraphNode, operation: Operation, rect: Rect, grid: Grid, kernels: Kernels, wanted: Map<string, Want>): Read[] {
  const bounds = gridBounds(grid)
  return node.inputs.map((input, index) => {
    const need = clampInto(operation.need?.(node.params, rect, grid, kernels, index) ?? rect, bounds)
    // What is reduced from a finer grid comes from there.
    if (finerGrid(grid, operation.finest?.(node.params) ?? Infinity)) return { rect: need, key: undefined }
    const others = wanted.get(input.key)
    const both = others ? union(others.rect, need) : need
    if (others && area(both) > FAR_APART * (area(others.rect) + area(need))) return { rect: need, key: undefined }
    wanted.set(input.key, { rect: both, readers: (others?.readers ?? 0) + 1 })
    return { rect: need, key: input.key }
  })
}

function area({ width, height }: Rect): number {
  return width * height
}
