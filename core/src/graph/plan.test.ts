import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode } from '../operations/fields/joinFields/joinFields'
import { sumFieldsNode } from '../operations/fields/sumFields/sumFields'
import { placeNode } from '../operations/geometry/place/place'
import { constantFieldNode } from '../operations/sources/constantField/constantField'
import { stripesNode } from '../operations/sources/stripes/stripes'
import { coarserGrid, finerGrid, gridAt } from '../planes/grid'
import type { GraphNode } from './node'
import { operations } from '../operations/registry'
import { Planner, type Step } from './plan'

const photo = { width: 2000, height: 1500 }
const grid = gridAt(photo, 1)
const rect = { x: 600, y: 500, width: 100, height: 80 }

let planner: Planner
beforeAll(async () => {
  planner = new Planner(operations, await loadKernels())
})

const source = stripesNode({ period: 9, part: 0.5, turn: 0, shift: 0 })

function plan(root: GraphNode, known: readonly GraphNode[] = []): Map<GraphNode, Step> {
  const value = { kind: 'field', rect: { x: 0, y: 0, ...photo }, planes: [1] } as const
  const steps = planner.planFor(root, rect, grid, (node) => (known.includes(node) ? value : undefined))
  return new Map(steps.map((step) => [step.node, step]))
}

describe('the plan of a tile', () => {
  it('computes what several read once, on all that they need of it', () => {
    const blurred = gaussianBlurNode(source, 3)
    const root = sumFieldsNode([source, blurred, joinFieldsNode([source, blurred], 'product')])
    const steps = plan(root)
    expect(steps.size).toBe(4)
    // 3.6 standard deviations, rounded up, on each side.
    expect(steps.get(source)!.rect).toEqual({ x: 589, y: 489, width: 122, height: 102 })
    expect(steps.get(source)!.readers).toBe(3)
    expect(steps.get(blurred)!.rect).toEqual(rect)
    // Each comes after what it reads.
    const order = [...steps.keys()]
    for (const [node] of steps) for (const input of node.inputs) expect(order.indexOf(input)).toBeLessThan(order.indexOf(node))
  })

  it('stops at what is known', () => {
    const blurred = gaussianBlurNode(source, 3)
    const steps = plan(sumFieldsNode([blurred, constantFieldNode(0.5)]), [blurred])
    expect(steps.has(source)).toBe(false)
    expect(steps.get(blurred)!.known).toBeDefined()
  })

  it('leaves what is smooth to a coarser grid, with all beneath it', () => {
    const steps = plan(sumFieldsNode([source, gaussianBlurNode(source, 40)]))
    expect(steps.get(source)!.rect).toEqual(rect)
    expect([...steps.values()].filter(({ reads }) => reads.length > 0).length).toBe(1)
  })

  it('takes what is done pixel by pixel to what is smooth for smooth, and for as fine as its finest input', () => {
    const [wide, wider] = [gaussianBlurNode(source, 20), gaussianBlurNode(source, 80)]
    const product = joinFieldsNode([wide, wider, constantFieldNode(0.5)], 'product')
    expect(planner.coarserGridOf(product, grid)).toEqual(planner.coarserGridOf(wide, grid))
    expect(planner.coarserGridOf(wider, grid)!.pitchX).toBeGreaterThan(planner.coarserGridOf(wide, grid)!.pitchX)
    expect(plan(product).size).toBe(1)
    // Not beside something fine, and not where there is nothing at all.
    for (const fine of [joinFieldsNode([wide, source], 'screen'), sumFieldsNode([constantFieldNode(0.1), constantFieldNode(0.2)])])
      expect(planner.coarserGridOf(fine, grid)).toBeUndefined()
  })

  it('computes apart what is read at two places far from each other', () => {
    const moved = placeNode(source, { enlarge: 1, turn: 0, moveX: 500, moveY: 300, centreX: 0, centreY: 0 })
    const steps = plan(sumFieldsNode([source, moved]))
    expect(steps.get(source)!.rect).toEqual(rect)
    expect(steps.get(moved)!.reads[0]!.step).toBeUndefined()
  })
})

describe('coarse grids', () => {
  it('are the same whatever grid they are wanted from, and none where the grid is small', () => {
    const odd = { width: 6001, height: 3999 }
    const [full, half] = [1, 0.5].map((scale) => gridAt(odd, scale)) as [typeof grid, typeof grid]
    expect(coarserGrid(full, 9)).toEqual(coarserGrid(half, 9))
    expect(coarserGrid(full, 9)).toEqual(gridAt(odd, 1 / 8))
    expect(coarserGrid(full, 1.9)).toBeUndefined()
    // A view of a fifth of the size is computed as it is.
    expect(coarserGrid(gridAt(odd, 0.2), 64)).toBeUndefined()
    // Sixteen pixels along the shorter side are the least.
    expect(coarserGrid(gridAt({ width: 100, height: 70 }, 1), 64)).toEqual(gridAt({ width: 100, height: 70 }, 1 / 4))
  })

  it('know the next finer one down to a pitch', () => {
    const [eighth, quarter] = [8, 4].map((pitch) => gridAt(photo, 1 / pitch)) as [typeof grid, typeof grid]
    expect(finerGrid(eighth, 4)).toEqual(quarter)
    expect(finerGrid(quarter, 4)).toBeUndefined()
    expect(finerGrid(gridAt(photo, 0.3), 1)).toBeUndefined()
  })
})
