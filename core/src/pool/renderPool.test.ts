import type { Remote } from 'comlink'
import { describe, expect, it } from 'vitest'
import { graphNode } from '../graph/node'
import { nothingRead } from '../model/reading'
import type { PhotoData } from '../photo/photoData'
import { gridAt, gridBounds } from '../planes/grid'
import { HEAD, PAGE, StoreIndex, type StoreMemory } from '../graph/storeMemory'
import { Diary } from './diary'
import type { Thread } from './lane'
import { priorities, RenderPool } from './renderPool'
import { RenderProblem } from './renderProblem'
import type { RenderWorker } from './renderWorker'
import { ReceivedNodes, type SentGraph } from './sentGraph'

/** In so many steps a photo is read. */
const STEPS = 3

type Tile = (node: string, isGivenUp?: () => boolean, diary?: Diary) => Promise<Uint8ClampedArray<ArrayBuffer>>

/** A thread made up for these tests: it draws what it is told to, and tells what it was given. */
class FakeThread {
  readonly photos: string[] = []
  readonly sent: string[][] = []
  ended = false
  takesPhotos = true
  private report: (why: string) => void = () => undefined
  private readonly nodes = new ReceivedNodes()
  private diary: Diary | undefined

  private steps = 0
  /** Bytes of its memory, when a photo is dropped. */
  memory = 0

  /** @param shares takes down what part of the memory for results it may use together with the others, each time it is told */
  constructor(
    private readonly tile: Tile,
    private readonly shares: number[] = [],
  ) {}

  get thread(): Thread {
    const worker = {
      keepDiary: (memory: SharedArrayBuffer) => {
        this.diary = new Diary(memory)
        return Promise.resolve()
      },
      useResults: ({ index }: StoreMemory) => {
        const { head, most } = new StoreIndex(index)
        return Promise.resolve(void this.shares.push(head[HEAD.limit]! / most))
      },
      addPhoto: ({ id }: PhotoData) => (this.takesPhotos ? Promise.resolve(void this.photos.push(id)) : new Promise<void>(() => undefined)),
      dropPhoto: (id: string) => {
        this.photos.splice(this.photos.indexOf(id), 1)
        return Promise.resolve(this.memory)
      },
      readOn: () => {
        this.sent.push(['read on'])
        return Promise.resolve(++this.steps < STEPS ? undefined : nothingRead)
      },
      renderTile: (graph: SentGraph, _grid: unknown, _rect: unknown, call: number) => {
        this.sent.push(graph.nodes.map(({ operation }) => operation))
        const node = this.nodes.receive(graph)
        this.diary?.begin(this.nodes.indexOf(node.key))
        return this.tile(node.operation, () => this.diary?.isGivenUp(call) ?? false, this.diary)
      },
    }
    return {
      worker: worker as unknown as Remote<RenderWorker>,
      onEnd: (report) => (this.report = report),
      end: () => void (this.ended = true),
    }
  }

  die(): void {
    this.report('it was killed')
  }
}

const photo = (id: string): PhotoData => ({ id, width: 64, height: 64, levels: [] })
const grid = gridAt({ width: 64, height: 64 }, 1)
const pixels: Tile = () => Promise.resolve(new Uint8ClampedArray(64 * 64 * 4))
const never: Tile = () => new Promise(() => undefined)
const trap: Tile = () => Promise.reject(Object.assign(new Error('unreachable'), { name: 'RuntimeError' }))
const base = graphNode('base', {})
const top = graphNode('top', {}, [base])

const budget = { most: 64 * PAGE }

function poolOf(...tiles: readonly Tile[]): { pool: RenderPool; threads: FakeThread[]; shares: number[] } {
  const threads: FakeThread[] = []
  const shares: number[] = []
  const start = (): Promise<Thread> => {
    const made = new FakeThread(tiles[Math.min(threads.length, tiles.length - 1)] ?? pixels, shares)
    threads.push(made)
    return Promise.resolve(made.thread)
  }
  return { pool: new RenderPool({ threads: 1, start, budget, stallSeconds: 0.05 }), threads, shares }
}

function draw(pool: RenderPool, node = top): Promise<Uint8ClampedArray> {
  return pool.renderPixels({ node, grid, rect: gridBounds(grid), tileSize: 64, priority: priorities.view })
}

describe('a pool of threads', () => {
  it('sends a thread only the nodes that it does not know', async () => {
    const { pool, threads } = poolOf(pixels)
    await draw(pool)
    await draw(pool, graphNode('other', {}, [base]))
    await draw(pool)
    expect(threads[0]!.sent).toEqual([['base', 'top'], ['other'], []])
  })

  it('reads a photo in steps, between which goes what is wanted sooner; what is no longer wanted is not read on', async () => {
    const { pool, threads } = poolOf(pixels)
    const read = pool.readPhoto('a')
    await draw(pool, base)
    expect(await read).toEqual(nothingRead)
    expect(threads[0]!.sent).toEqual([['read on'], ['base'], ['read on'], ['read on']])
    await expect(pool.readPhoto('a', AbortSignal.abort())).rejects.toThrow(/abort/i)
    expect(threads[0]!.sent.length).toBe(4)
  })

  it.each([
    ['a trap, as when there is no memory left', trap],
    ['a thread that is stuck', never],
  ])('replaces the thread after %s, gives it the photos again, and repeats the tile', async (_, tile) => {
    const { pool, threads } = poolOf(tile, pixels)
    await pool.started()
    await pool.addPhoto(photo('a'))
    await pool.addPhoto(photo('b'))
    await pool.dropPhoto('a')
    expect((await draw(pool)).length).toBe(64 * 64 * 4)
    expect(threads.map(({ ended }) => ended)).toEqual([true, false])
    expect(threads[1]!.photos).toEqual(['b'])
    // It knows nothing of what the one before it knew.
    expect(threads[1]!.sent).toEqual([['base', 'top']])
  })

  it('gives a thread up that holds much memory when a photo is let go, but not while it computes', async () => {
    let answer: (pixels: Uint8ClampedArray<ArrayBuffer>) => void = () => undefined
    const { pool, threads } = poolOf(() => new Promise((resolve) => (answer = resolve)), pixels)
    await pool.started()
    threads[0]!.memory = 1e9
    for (const id of ['a', 'b', 'c']) await pool.addPhoto(photo(id))
    const drawn = draw(pool)
    await pool.dropPhoto('a')
    expect(threads[0]!.ended).toBe(false)
    answer(new Uint8ClampedArray(64 * 64 * 4))
    await drawn
    await pool.dropPhoto('b')
    await draw(pool)
    expect(threads.map(({ ended }) => ended)).toEqual([true, false])
    expect(threads[1]!.photos).toEqual(['c'])
  })

  it('keeps its threads where another photo comes at once, unless they hold beyond reason', async () => {
    const { pool, threads } = poolOf(pixels, pixels)
    await pool.started()
    for (const id of ['a', 'b', 'c']) await pool.addPhoto(photo(id))
    threads[0]!.memory = 200e6
    await pool.dropPhoto('a', true)
    expect(threads.map(({ ended }) => ended)).toEqual([false])
    threads[0]!.memory = 1e9
    await pool.dropPhoto('b', true)
    expect(threads.map(({ ended }) => ended)).toEqual([true, false])
  })

  it('has a thread give up what is no longer wanted, and goes on with the same thread', async () => {
    // It looks after every operation whether it is still wanted.
    const long: Tile = async (node, isGivenUp) => {
      if (node === 'base') return new Uint8ClampedArray(64 * 64 * 4)
      while (!isGivenUp?.()) await new Promise((resolve) => setImmediate(resolve))
      throw Object.assign(new Error(''), { name: 'GivenUp' })
    }
    const { pool, threads } = poolOf(long)
    const abort = new AbortController()
    const request = { node: top, grid, rect: gridBounds(grid), tileSize: 64, priority: priorities.view, signal: abort.signal }
    const drawn = pool.renderPixels(request)
    await pool.started()
    setImmediate(() => abort.abort())
    await expect(drawn).rejects.toThrow(/abort/i)
    await draw(pool, base)
    expect(threads.length).toBe(1)
    expect(threads[0]!.ended).toBe(false)
  })

  it('goes on after a thread has died, while it computes and while it rests', async () => {
    const { pool, threads } = poolOf(never, pixels)
    const drawn = draw(pool)
    await pool.started()
    threads[0]!.die()
    await drawn
    threads[1]!.die()
    await draw(pool)
    expect(threads.length).toBe(3)
  })

  it.each([
    ['memory', trap, 'there is not enough memory for it at this size', [1, 0.5, 0.25, 0.125]],
    ['stuck', never, 'it takes too long at this size', [1, 1]],
  ] as const)('says what could not be computed, and where, when no thread can: %s', async (failure, tile, words, parts) => {
    const { pool, threads, shares } = poolOf(tile)
    const error = await draw(pool).catch((caught: unknown) => caught)
    expect(error).toBeInstanceOf(RenderProblem)
    expect(error).toMatchObject({ failure, nodeKey: top.key })
    expect((error as RenderProblem).inWords('“Dream bloom”')).toBe(`“Dream bloom” could not be computed: ${words}.`)
    expect(threads.every(({ ended }) => ended)).toBe(true)
    // After each that ran out of memory all keep less.
    expect(shares).toEqual(parts)
  })

  it('goes on with a thread that keeps less where memory is short, and with all of it for the next photo', async () => {
    const { pool, threads, shares } = poolOf(trap, trap, pixels)
    await pool.addPhoto(photo('a'))
    await draw(pool)
    await draw(pool)
    expect(shares).toEqual([1, 0.5, 0.25])
    threads[2]!.memory = 1e9
    await pool.addPhoto(photo('b'))
    await pool.dropPhoto('b')
    await draw(pool)
    expect(shares).toEqual([1, 0.5, 0.25, 1, 1])
  })

  it('leaves the other tiles of a request that has failed, and serves the next one', async () => {
    let count = 0
    const { pool } = poolOf(() => (count++ < 4 ? trap('') : pixels('')))
    const request = { node: top, grid, rect: gridBounds(grid), tileSize: 16, priority: priorities.view }
    await expect(pool.renderPixels(request)).rejects.toBeInstanceOf(RenderProblem)
    expect(count).toBe(4)
    await draw(pool)
    expect(count).toBe(5)
  })

  it('tries to start a thread again if it did not start', async () => {
    let tries = 0
    const start = (): Promise<Thread> =>
      tries++ === 0 ? Promise.reject(new Error('no thread')) : Promise.resolve(new FakeThread(pixels).thread)
    const pool = new RenderPool({ threads: 1, start, budget })
    await expect(pool.started()).rejects.toThrow('no thread')
    await pool.started()
    expect(tries).toBe(2)
  })

  // In a page a thread that is ended says nothing of it.
  it('whoever waits for a thread that is given up is told, and asks the next one', async () => {
    const { pool, threads } = poolOf(
      () => new Promise((_, reject) => setTimeout(() => reject(Object.assign(new Error(''), { name: 'RuntimeError' })), 20)),
      pixels,
    )
    await pool.started()
    // It is at work on a tile, and is being handed a photo that it never takes.
    threads[0]!.takesPhotos = false
    const drawn = draw(pool)
    const adding = pool.addPhoto(photo('late'))
    await Promise.all([drawn, adding])
    expect(threads.map(({ ended }) => ended)).toEqual([true, false])
    expect(threads[1]!.photos).toEqual(['late'])
  })

  it('a thread that asks for time has it, and one that gives signs of life is not stuck', async () => {
    const busy = (beat: (diary: Diary, round: number) => void): Tile => {
      return async (_node, _isGivenUp, diary) => {
        for (let round = 0; round < 8; round++) {
          beat(diary!, round)
          await new Promise((resolve) => setTimeout(resolve, 20))
        }
        return new Uint8ClampedArray(64 * 64 * 4)
      }
    }
    for (const tile of [busy((diary) => diary.beat()), busy((diary, round) => round === 0 && diary.beat(1))]) {
      const { pool, threads } = poolOf(tile, never)
      await draw(pool)
      expect(threads.map(({ ended }) => ended)).toEqual([false])
    }
  })

  it('once it is let go starts no thread any more, and everybody is told', async () => {
    const { pool, threads } = poolOf(never)
    const drawn = draw(pool)
    await pool.started()
    const refused = expect(drawn).rejects.toThrow(RenderProblem)
    await new Promise((resolve) => setImmediate(resolve))
    pool.dispose()
    await refused
    expect(threads.map(({ ended }) => ended)).toEqual([true])
  })

  it('a request that is aborted while its thread starts is given up as soon as the thread has it', async () => {
    const long: Tile = async (node, isGivenUp) => {
      if (node === 'base') return new Uint8ClampedArray(64 * 64 * 4)
      await new Promise((resolve) => setImmediate(resolve))
      if (!isGivenUp?.()) return new Uint8ClampedArray(64 * 64 * 4)
      threads[0]!.sent.push(['given up'])
      throw Object.assign(new Error(''), { name: 'GivenUp' })
    }
    const { pool, threads } = poolOf(long)
    const abort = new AbortController()
    const request = { node: top, grid, rect: gridBounds(grid), tileSize: 64, priority: priorities.view, signal: abort.signal }
    const drawn = pool.renderPixels(request)
    // The tile waits for its thread, and is aborted before it is handed over.
    await Promise.resolve()
    abort.abort()
    await expect(drawn).rejects.toThrow(/abort/i)
    await draw(pool, base)
    const [first] = threads[0]!.sent
    expect(first![0] === 'base' || threads[0]!.sent.some(([what]) => what === 'given up')).toBe(true)
  })

  it('what is beyond reason is not tried again, and the thread stays', async () => {
    const costly: Tile = (node) =>
      node === 'base' ? pixels(node) : Promise.reject(Object.assign(new Error('it would take an hour'), { name: 'TooCostly' }))
    const { pool, threads } = poolOf(costly)
    await expect(draw(pool)).rejects.toMatchObject({ failure: 'too costly', nodeKey: top.key })
    const problem = (await draw(pool).catch((error: unknown) => error)) as RenderProblem
    expect(problem.inWords('“Rain”')).toBe('“Rain” is not computed: it would take an hour.')
    await draw(pool, base)
    expect(threads.map(({ ended }) => ended)).toEqual([false])
  })

  it('an aborted request ends with the reason it was given', async () => {
    const { pool } = poolOf(pixels)
    const signal = AbortSignal.abort(new Error('outdated'))
    await expect(
      pool.renderPixels({ node: top, grid, rect: gridBounds(grid), tileSize: 64, priority: priorities.view, signal }),
    ).rejects.toThrow('outdated')
  })
})
