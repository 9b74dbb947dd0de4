import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Rect } from '../planes/rect'
import { POOL_LANE, ResultStore } from './resultStore'
import { HEAD, PAGE, StoreIndex, storeMemory, type StoreMemory } from './storeMemory'

const SIDE = 90
const rect: Rect = { x: 7, y: -3, width: SIDE, height: SIDE }
/** Pages that a value of one plane takes. */
const PAGES = Math.ceil((4 * SIDE * SIDE) / PAGE)

/** Memory as kernels have it, with planes of numbers that follow from a seed. */
function kernelMemory(planes: number, seed: number, { width, height }: Rect = rect): { memory: ArrayBuffer; addresses: number[] } {
  const memory = new ArrayBuffer(4 * planes * width * height)
  new Float32Array(memory).forEach((_, i, all) => (all[i] = seed + i / 16))
  return { memory, addresses: Array.from({ length: planes }, (_, i) => 4 * i * width * height) }
}

function put(store: ResultStore, key: string, seed: number, cost = 1, planes = 1): void {
  const { memory, addresses } = kernelMemory(planes, seed)
  store.keep(key, { kind: 'field', rect, planes: addresses }, memory, cost)
}

/** First number of a result; nothing if it is not there. */
function first(store: ResultStore, key: string): number | undefined {
  return store.lend(key, rect, ({ copy }) => {
    const memory = new ArrayBuffer(4 * SIDE * SIDE)
    copy(0, rect, memory, 0, rect)
    return new Float32Array(memory)[0]
  })
}

/** Pages that belong to no result, found one after the other, and how many results say that they have. */
function pagesOf({ index }: StoreMemory): { free: number; used: number; grown: number } {
  const { head, next } = new StoreIndex(index)
  let free = 0
  for (let page = head[HEAD.freePage]! - 1; page >= 0; page = next[page]! - 1) free++
  return { free, used: head[HEAD.used]!, grown: head[HEAD.grown]! }
}

describe('a store of results', () => {
  it.each(['shared', 'own'] as const)('gives any part of what was put in, to any place: %s', (which) => {
    const memory = storeMemory(200 * PAGE, which === 'shared')
    const store = new ResultStore(memory, 0)
    put(store, 'a', 0.5, 1, 3)
    const side = fc.integer({ min: 1, max: SIDE })
    fc.assert(
      fc.property(fc.nat(2), side, side, side, side, (plane, left, top, right, bottom) => {
        const [x, y] = [Math.min(left, right), Math.min(top, bottom)]
        const part = { x: rect.x + x - 1, y: rect.y + y - 1, width: Math.abs(right - left) + 1, height: Math.abs(bottom - top) + 1 }
        // It is copied into a plane that reaches beyond it.
        const to = { x: part.x - 2, y: part.y - 1, width: part.width + 5, height: part.height + 3 }
        const out = new ArrayBuffer(16 + 4 * to.width * to.height)
        const lent = store.lend('a', part, ({ kind, planes, copy }) => {
          copy(plane, part, out, 16, to)
          return { kind, planes }
        })
        expect(lent).toEqual({ kind: 'field', planes: 3 })
        const numbers = new Float32Array(out, 16)
        for (let row = 0; row < to.height; row++) {
          for (let column = 0; column < to.width; column++) {
            const [px, py] = [to.x + column, to.y + row]
            const isInside = px >= part.x && px < part.x + part.width && py >= part.y && py < part.y + part.height
            const at = plane * SIDE * SIDE + (py - rect.y) * SIDE + (px - rect.x)
            if (numbers[row * to.width + column] !== (isInside ? 0.5 + at / 16 : 0)) throw new Error(`${px} ${py}`)
          }
        }
      }),
      { numRuns: 60 },
    )
    expect(store.lend('a', { ...rect, width: SIDE + 1 }, () => true)).toBeUndefined()
    expect(store.lend('b', rect, () => true)).toBeUndefined()
  })

  it('lets go what took the least to compute for its size, the longer ago it was read the sooner, and never what is read', () => {
    const store = new ResultStore(storeMemory(3 * PAGES * PAGE), 0)
    put(store, 'cheap', 1, 10)
    put(store, 'dear', 2, 1000)
    put(store, 'middle', 3, 100)
    put(store, 'next', 4, 50)
    expect(['cheap', 'dear', 'middle', 'next'].map((key) => first(store, key))).toEqual([undefined, 2, 3, 4])
    // While the cheapest is read, the next one goes.
    store.lend('next', rect, () => put(store, 'fifth', 5, 60))
    expect(['dear', 'middle', 'next', 'fifth'].map((key) => first(store, key))).toEqual([2, undefined, 4, 5])
    // What is read more often is worth more.
    for (let i = 0; i < 5; i++) first(store, 'fifth')
    put(store, 'sixth', 6, 90)
    expect(['dear', 'next', 'fifth', 'sixth'].map((key) => first(store, key))).toEqual([2, undefined, 5, 6])
    // What goes raises the level: what was dear once, and is not read again, goes at last.
    for (let i = 0; i < 400; i++) put(store, `more ${i}`, i, 90)
    expect(first(store, 'dear')).toBeUndefined()
  })

  it('keeps no more than it is limited to, says so of what does not fit, and holds nothing once it is cleared', () => {
    const memory = storeMemory(8 * PAGES * PAGE)
    const store = new ResultStore(memory, 0)
    for (let i = 0; i < 8; i++) put(store, `v${i}`, i)
    expect(store.size).toBe(8 * PAGES * PAGE)
    store.limitTo(2 * PAGES * PAGE)
    expect(store.size).toBe(2 * PAGES * PAGE)
    const { memory: kernels, addresses } = kernelMemory(3, 1)
    expect(store.claim('large', rect)).toBe('mine')
    expect(store.publish('large', { kind: 'tones', rect, planes: addresses }, kernels, 1)).toBe(false)
    expect(store.claim('large', rect)).toBe('mine')
    store.abandon('large', rect)
    store.clear()
    const { free, used, grown } = pagesOf(memory)
    expect([used, free]).toEqual([0, grown])
  })

  it('where a thread died while it changed the store, nothing of it is used any more', () => {
    const memory = storeMemory(40 * PAGE)
    const [store, pool] = [new ResultStore(memory, 3), new ResultStore(memory, POOL_LANE)]
    put(store, 'a', 1)
    new StoreIndex(memory.index).head[HEAD.lock] = 5 + 1
    expect(pool.forgetLane(5)).toBe(false)
    expect(first(store, 'a')).toBeUndefined()
    // Each computes for itself what it needs.
    expect([store.claim('b', rect), store.claim('b', rect)]).toEqual(['mine', 'mine'])
    put(store, 'b', 1)
    expect(first(store, 'b')).toBeUndefined()
  })
})

/** What a thread does on the way to a result, one step after the other: it computes what it needs first, as the evaluator does. */
function* need(
  store: ResultStore,
  inputs: readonly (readonly number[])[],
  wanted: readonly number[],
  computed: number[],
): Generator<'step' | 'waits'> {
  let missing = wanted
  while (missing.length > 0) {
    const taken: number[] = []
    for (const one of missing) {
      yield 'step'
      if (first(store, `${one}`) !== undefined) continue
      if (store.claim(`${one}`, rect) !== 'mine') {
        taken.push(one)
        continue
      }
      let isPublished = false
      try {
        yield* need(store, inputs, inputs[one] ?? [], computed)
        yield 'step'
        computed.push(one)
        const { memory, addresses } = kernelMemory(1, one)
        isPublished = store.publish(`${one}`, { kind: 'mask', rect, planes: addresses }, memory, 1)
      } finally {
        if (!isPublished) store.abandon(`${one}`, rect)
      }
    }
    if (taken.length === missing.length) yield 'waits'
    missing = taken
  }
}

describe('threads that share results', () => {
  /** For each result which earlier ones it needs; what happens, in which order, to which thread. */
  const graph = fc.array(fc.array(fc.nat(1000), { maxLength: 4 }), { minLength: 1, maxLength: 14 })
  const events = fc.array(
    fc.record({
      thread: fc.nat(3),
      what: fc.constantFrom('goes on', 'goes on', 'goes on', 'goes on', 'goes on', 'goes on', 'dies', 'gives up'),
    }),
    {
      maxLength: 250,
    },
  )

  it('whatever the order, whoever dies or gives up: each result is computed once, or again after a death or a change of mind, nobody waits for ever, nothing is left', () => {
    fc.assert(
      fc.property(graph, events, fc.boolean(), (raw, happens, isTight) => {
        const inputs = raw.map((list, i) => (i === 0 ? [] : [...new Set(list.map((one) => one % i))]))
        const memory = storeMemory((isTight ? 3 : 40) * PAGES * PAGE)
        const pool = new ResultStore(memory, POOL_LANE)
        const computed: number[] = []
        let [lanes, lost] = [0, 0]
        const begin = () => {
          const lane = lanes++ % POOL_LANE
          return { lane, run: need(new ResultStore(memory, lane), inputs, [inputs.length - 1], computed) }
        }
        const threads = [0, 1, 2, 3].map(begin)
        for (const { thread, what } of happens) {
          const { lane, run } = threads[thread]!
          if (what === 'goes on') {
            if (run.next().done) threads[thread] = begin()
            continue
          }
          // One that dies runs nothing any more; one that gives up puts in order what it has begun.
          if (what === 'dies') pool.forgetLane(lane)
          else run.return(undefined)
          lost += inputs.length
          threads[thread] = begin()
        }
        // Those that are left go on in turn until all are done: somebody can always go on.
        let running = threads.map(({ run }) => run)
        while (running.length > 0) {
          const steps = running.map((run) => run.next())
          if (!isTight && steps.every(({ value, done }) => !done && value === 'waits')) throw new Error('Everybody waits.')
          running = running.filter((_, i) => !steps[i]!.done)
        }
        if (!isTight) {
          expect(first(pool, `${inputs.length - 1}`)).toBe(inputs.length - 1)
          expect(computed.length).toBeLessThanOrEqual(inputs.length + lost)
          if (lost === 0) expect(new Set(computed).size).toBe(computed.length)
        }
        pool.clear()
        const { free, used, grown } = pagesOf(memory)
        expect([used, free]).toEqual([0, grown])
      }),
      { numRuns: 150 },
    )
  })
})
