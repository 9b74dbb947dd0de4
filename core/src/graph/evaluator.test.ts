import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import type { PhotoData } from '../photo/photoData'
import { gridAt, gridBounds } from '../planes/grid'
import { splitIntoTiles } from '../planes/rect'
import { KnownNodes, ReceivedNodes } from '../pool/sentGraph'
import { renderTile } from '../render/renderTile'
import { sceneGraph } from '../render/sceneGraph'
import { Evaluator, type Keep } from './evaluator'
import type { GraphNode } from './node'
import type { Kernels } from './operation'
import { operations } from '../operations/registry'
import { ResultStore } from './resultStore'
import { storeMemory, type StoreMemory } from './storeMemory'

const size = { width: 700, height: 500 }
/** Of one picture. */
const BYTES = 3 * 4 * size.width * size.height
let kernels: Kernels
let photo: PhotoData
let node: GraphNode
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'p', size.width, size.height, samplePixels(size.width, size.height))
  const wide = { width: 6000, height: 4000 }
  const kinds = ['fog', 'rain', 'softFocus', 'lightBloom'] as const
  node = sceneGraph({ photo, effects: kinds.map((kind) => newEffect(wide, { kind, id: kind })) })
})

describe('an evaluation that is given up', () => {
  it('leaves nothing behind that is held, wherever it ends, and the next one gives the same bytes', () => {
    const expected = Buffer.from(renderAll(evaluatorFor(kernels, photo), node, size).pixels)
    const evaluator = evaluatorFor(kernels, photo)
    const grid = gridAt(size, 1)
    for (const most of [1, 2, 5, 9, 14, 20, 27]) {
      let runs = 0
      evaluator.onRun = () => {
        if (++runs > most) throw new Error('given up')
      }
      expect(() => renderTile(evaluator, node, grid, gridBounds(grid))).toThrow('given up')
      evaluator.onRun = undefined
      evaluator.dropPhoto(photo.id)
      expect(evaluator.bytesHeld, `after ${most} operations`).toBe(0)
      evaluator.addPhoto(photo)
    }
    expect(Buffer.from(renderAll(evaluator, node, size).pixels).equals(expected)).toBe(true)
  })
})

describe('a correction that takes the place of all beneath it', () => {
  it('is kept for the next change above it, in a thread too, where there is room for little', () => {
    const [known, received] = [new KnownNodes(), new ReceivedNodes()]
    const evaluator = new Evaluator({ kernels, operations, store: 3 * BYTES })
    evaluator.addPhoto(photo)
    const grid = gridAt(size, 1)
    const curves = (id: string, look = 'gentle-s'): Effect => newEffect(size, { kind: 'curves', id, look })
    const run = (look: string): string[] => {
      const operations: string[] = []
      const above = ['third', 'fourth', 'fifth'].map((id) => curves(id))
      const effects = [newEffect(size, { kind: 'vignette', id: 'first' }), curves('second', look), ...above]
      evaluator.onRun = ({ operation }) => operations.push(operation)
      const rather = sceneGraph({ photo, effects }, { kind: 'beneath', effectId: 'second' }).key
      renderTile(evaluator, received.receive(known.send(sceneGraph({ photo, effects }))), grid, gridBounds(grid), { rather })
      return operations
    }
    expect(run('gentle-s')).toContain('gainByMask')
    // The first change finds out where the next one will be.
    run('faded')
    expect(run('crossed-colours')).not.toContain('gainByMask')
  })
})

describe('two threads with one store', () => {
  interface Task {
    readonly photo: PhotoData
    readonly keep: Keep
  }
  /** Evaluators as threads have them, each with kernels of its own; tiles go to them in turn. */
  async function drawn(count: number, memory: StoreMemory | undefined, task: Task): Promise<{ work: number; pixels: Buffer }> {
    const grid = gridAt(task.photo, 1)
    const threads = await Promise.all(
      Array.from({ length: count }, async (_, lane) => {
        const store = memory ? new ResultStore(memory, lane) : 128e6
        const thread = new Evaluator({ kernels: await loadKernels(), operations, store })
        thread.addPhoto(task.photo)
        return thread
      }),
    )
    const tiles = splitIntoTiles(gridBounds(grid), 256).map((tile, i) => renderTile(threads[i % count]!, node, grid, tile, task.keep))
    return { work: threads.reduce((sum, { work }) => sum + work, 0), pixels: Buffer.concat(tiles.map((tile) => Buffer.from(tile))) }
  }

  it.each([
    ['a file', 1500, 1000, 'nothing'],
    ['a view', size.width, size.height, 'stages'],
  ] as const)('compute together what one would, and the same bytes; without it more: %s', async (_, width, height, keep) => {
    const task = { keep, photo: photoFrom(kernels, 'p', width, height, samplePixels(width, height)) }
    const one = await drawn(1, storeMemory(256e6), task)
    const two = await drawn(2, storeMemory(256e6), task)
    const apart = await drawn(2, undefined, task)
    expect(two.work).toBeLessThanOrEqual(1.02 * one.work)
    expect(apart.work).toBeGreaterThan(1.05 * one.work)
    expect(two.pixels.equals(one.pixels)).toBe(true)
    expect(apart.pixels.equals(one.pixels)).toBe(true)
  })

  it('find there what the others have: a picture that one has drawn is not drawn again', async () => {
    const [memory, task] = [storeMemory(128e6), { photo, keep: 'stages' as const }]
    const before = await drawn(1, memory, task)
    const again = await drawn(2, memory, task)
    expect(again.work).toBe(0)
    expect(again.pixels.equals(before.pixels)).toBe(true)
  })
})

describe('a change of the lowest effect', () => {
  it('draws no pattern and no mask of those above it again', () => {
    const evaluator = evaluatorFor(kernels, photo)
    const grid = gridAt(size, 1)
    const run = (amount: number): string[] => {
      const operations: string[] = []
      const lowest = newEffect(size, { kind: 'glaze', id: 'lowest' })
      lowest.mix.amount = amount
      const above = (['snow', 'rain'] as const).map((kind) => newEffect(size, { kind, id: kind }))
      evaluator.onRun = ({ operation }) => operations.push(operation)
      renderTile(evaluator, sceneGraph({ photo, effects: [lowest, ...above] }), grid, gridBounds(grid))
      return operations
    }
    expect(run(50)).toContain('streaks')
    const again = run(60)
    expect(again).toContain('mix')
    expect(again.filter((operation) => operation !== 'mix')).toEqual([])
  })
})

describe('a draft', () => {
  it('looks like the picture, and is never taken for it', () => {
    const evaluator = evaluatorFor(kernels, photo)
    const grid = gridAt(size, 1 / 8)
    const draft = renderTile(evaluator, node, { ...grid, draft: true }, gridBounds(grid))
    const exact = renderTile(evaluator, node, grid, gridBounds(grid))
    const off = exact.map((value, i) => Math.abs(value - draft[i]!))
    expect(off.reduce((sum, value) => sum + value, 0) / off.length).toBeLessThan(4)
    expect(Buffer.from(exact).equals(Buffer.from(draft))).toBe(false)
    expect(Buffer.from(exact).equals(Buffer.from(renderTile(evaluatorFor(kernels, photo), node, grid, gridBounds(grid))))).toBe(true)
  })
})
