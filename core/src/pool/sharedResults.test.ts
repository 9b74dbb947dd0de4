import type { Remote } from 'comlink'
import { describe, expect, it, vi } from 'vitest'
import { HEAD, PAGE, StoreIndex, type StoreMemory } from '../graph/storeMemory'
import type { RenderWorker } from './renderWorker'
import { SharedResults } from './sharedResults'

/** A thread that notes what it is given. */
function worker(): { readonly given: { memory: StoreMemory; lane: number; rest: number }[]; readonly worker: Remote<RenderWorker> } {
  const given: { memory: StoreMemory; lane: number; rest: number }[] = []
  const useResults = (memory: StoreMemory, lane: number, rest: number): Promise<void> =>
    Promise.resolve(void given.push({ memory, lane, rest }))
  return { given, worker: { useResults } as unknown as Remote<RenderWorker> }
}

const budget = { most: 64 * PAGE }

describe('results that threads share', () => {
  it('no two threads have the same number, however often others are replaced', async () => {
    const results = new SharedResults(budget, 64)
    const stays = await Promise.all(Array.from({ length: 63 }, () => results.give(worker().worker)))
    expect(new Set(stays).size).toBe(63)
    for (let i = 0; i < 600; i++) {
      const lane = await results.give(worker().worker)
      expect(stays).not.toContain(lane)
      results.forget(lane)
    }
  })

  it('all threads are given new memory when the one they have is in disorder, whoever left it so', async () => {
    const results = new SharedResults(budget, 2)
    const [one, other] = [worker(), worker()]
    await results.give(one.worker)
    const lane = await results.give(other.worker)
    const { memory } = one.given[0]!
    // A third thread died with the lock, and nobody has said so.
    new StoreIndex(memory.index).head[HEAD.lock] = 200
    results.forget(lane)
    expect(one.given.length).toBe(2)
    expect(one.given[1]!.memory.index).not.toBe(memory.index)
    expect(new StoreIndex(one.given[1]!.memory.index).head[HEAD.lock]).toBe(0)
    results.fitTo(100)
    expect(one.given.length).toBe(2)
  })

  it('once all threads are gone nothing waits: a process ends with its work', async () => {
    vi.useFakeTimers()
    try {
      const results = new SharedResults(budget, 2)
      const [one, other] = [await results.give(worker().worker), await results.give(worker().worker)]
      results.forget(one)
      expect(vi.getTimerCount()).toBe(1)
      results.close()
      results.forget(other)
      expect(vi.getTimerCount()).toBe(0)
    } finally {
      vi.useRealTimers()
    }
  })

  it('what threads keep besides is less for each the more there are', async () => {
    const rest = async (threads: number): Promise<number> => {
      const one = worker()
      await new SharedResults(budget, threads).give(one.worker)
      return one.given[0]!.rest
    }
    expect([await rest(1), await rest(2), await rest(16)]).toEqual([96e6, 96e6, 24e6])
  })
})
