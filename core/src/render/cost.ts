import { adviceFor, costPerPixel } from '../operations/costs'
import { finerGrid, gridAt, gridBounds, type Grid, type Size } from '../planes/grid'
import type { Rect } from '../planes/rect'
import type { GraphNode } from '../graph/node'
import { orderOf, type Planner, type Step } from '../graph/plan'

/** Tiles of a file. */
const TILE = 512
/** A file may take so long on one core of the machine that the costs were measured on: as many seconds for each megapixel of the photo, and for small photos as for one of so many. */
const MOST_SECONDS_PER_MEGAPIXEL = 5
const LEAST_MEGAPIXELS = 24

/** Nobody waits longer for what one effect adds to the first tile of a picture up to that size. */
const MOST_FIRST_SECONDS = 10

/** What a file of a picture costs, and the node that costs the most of it. */
export interface Cost {
  /** Seconds of one core of the machine that the costs were measured on. */
  readonly seconds: number
  /** As many as one effect adds, at the most, until the first tile is there, with all that is computed once for it. */
  readonly first: number
  /** The node that costs the most in all, and of the effect that adds the most to the first tile. */
  readonly costliest: string
  readonly costliestFirst: string
}

/** A picture costs more than is reasonable. It follows from photo and parameters, whatever the machine and the view. */
export class TooCostly extends Error {
  override readonly name = 'TooCostly'

  /** @param node the one to be named */
  constructor(
    readonly node: string,
    why: string,
    advice: string,
  ) {
    super(`on this photo ${why}; ${advice}`)
  }
}

/** What is so far from the limit by its nodes alone is not planned. */
const PLANNED_FROM = 1 / 10

/** @throws TooCostly if a file of the picture would cost beyond reason */
export function checkCost(root: GraphNode, photo: Size, planner: Planner): void {
  const megapixels = Math.max(LEAST_MEGAPIXELS, (photo.width * photo.height) / 1e6)
  const most = MOST_SECONDS_PER_MEGAPIXEL * megapixels
  const nodes = orderOf(root)
  if (roughly(nodes, photo, planner) < PLANNED_FROM * most) return
  const cost = costOf(root, photo, planner)
  const adviceOn = (key: string): string => adviceFor(nodes.find((node) => node.key === key)?.operation)
  if (cost.seconds > most) {
    const minutes = Math.max(2, Math.round(cost.seconds / 60))
    throw new TooCostly(cost.costliest, `it would take about ${minutes} minutes`, adviceOn(cost.costliest))
  }
  if (cost.first > (MOST_FIRST_SECONDS * megapixels) / LEAST_MEGAPIXELS) {
    const why = `about ${Math.round(cost.first)} seconds would pass before any of it is seen`
    throw new TooCostly(cost.costliestFirst, why, adviceOn(cost.costliestFirst))
  }
}

/** What all nodes would cost if each read no more than it gives. */
function roughly(nodes: readonly GraphNode[], photo: Size, planner: Planner): number {
  const grid = gridAt(photo, 1)
  const tile = middleTile(grid)
  return nodes.reduce((sum, node) => {
    const on = planner.coarserGridOf(node, grid) ?? grid
    return sum + costPerPixel(node, on === grid ? tile : gridBounds(on), on) * on.width * on.height * 1e-9
  }, 0)
}

function middleTile(grid: Grid): Rect {
  const width = Math.min(TILE, grid.width)
  const height = Math.min(TILE, grid.height)
  return { x: Math.floor((grid.width - width) / 2), y: Math.floor((grid.height - height) / 2), width, height }
}

/** What a file of the picture costs at the size of the photo: of what is computed tile by tile a tile in the middle stands for all, what lies in blocks is computed once. */
export function costOf(root: GraphNode, photo: Size, planner: Planner): Cost {
  const sum = new Sum(planner)
  const grid = gridAt(photo, 1)
  const middle = middleTile(grid)
  sum.add(root, middle, grid, (grid.width * grid.height) / (middle.width * middle.height))
  return sum.of(orderOf(root))
}

/** Adds up what the steps of plans cost. */
class Sum {
  private readonly byNode = new Map<string, number>()
  private readonly firstByNode = new Map<string, number>()
  private readonly wholes = new Set<string>()

  constructor(private readonly planner: Planner) {}

  /** @param order of the nodes, each after what it reads: those up to a stage that are not up to one before it are an effect's own */
  of(order: readonly GraphNode[]): Cost {
    const [seconds, costliest] = this.sumOf(this.byNode, order)
    let [first, costliestFirst] = [0, '']
    for (let from = 0; from < order.length;) {
      const stage = order.findIndex((node, i) => i >= from && this.planner.isStage(node))
      const to = stage < 0 ? order.length : stage + 1
      const [own, most] = this.sumOf(this.firstByNode, order.slice(from, to))
      if (own > first) [first, costliestFirst] = [own, most]
      from = to
    }
    return { seconds, costliest, first, costliestFirst }
  }

  private sumOf(costs: ReadonlyMap<string, number>, nodes: readonly GraphNode[]): [sum: number, costliest: string] {
    let [sum, most, costliest] = [0, -1, '']
    for (const { key } of nodes) {
      const own = costs.get(key) ?? 0
      sum += own
      if (own > most) [most, costliest] = [own, key]
    }
    return [sum, costliest]
  }

  /** @param times how often a rectangle of that size is computed @param share how much of it the first tile needs */
  add(root: GraphNode, rect: Rect, grid: Grid, times: number, share = 1 / times): void {
    for (const step of this.planner.planFor(root, rect, grid, () => undefined)) this.addStep(step, grid, times, step.node === root, share)
  }

  private addStep({ node, operation, rect, reads }: Step, grid: Grid, times: number, isRoot: boolean, share: number): void {
    const coarse = this.planner.coarserGridOf(node, grid)
    if (coarse) return this.addWhole(node, coarse)
    const side = operation.block?.(node.params, grid)
    if (!isRoot && side) return this.addWhole(node, grid, partOf(rect, grid, side))
    const own = costPerPixel(node, rect, grid) * rect.width * rect.height * 1e-9 * times
    this.byNode.set(node.key, (this.byNode.get(node.key) ?? 0) + own)
    this.firstByNode.set(node.key, (this.firstByNode.get(node.key) ?? 0) + own * share)
    const finer = finerGrid(grid, operation.finest?.(node.params) ?? Infinity)
    reads.forEach(({ rect: part, step }, index) => {
      const input = node.inputs[index]
      if (step || !input) return
      if (finer) this.addWhole(input, finer)
      else this.add(input, part, grid, times, share)
    })
  }

  /** What is computed in blocks is computed once for the whole picture, on its own grid. */
  private addWhole(node: GraphNode, grid: Grid, share = 1): void {
    const key = `${node.key} ${grid.width} ${grid.height}`
    if (this.wholes.has(key)) return
    this.wholes.add(key)
    this.add(node, gridBounds(grid), grid, 1, share)
  }
}

/** How much of a grid lies in the blocks that a rectangle touches. */
function partOf({ x, y, width, height }: Rect, grid: Grid, side: number): number {
  const touched = (from: number, length: number, most: number) =>
    Math.min(most, Math.ceil((from + length) / side) * side) - Math.max(0, Math.floor(from / side) * side)
  return (touched(x, width, grid.width) * touched(y, height, grid.height)) / (grid.width * grid.height)
}
