import { describe, expect, it } from 'vitest'
import type { Value } from '../planes/value'
import { contentKey } from './contentKey'
import { ValueCache } from './valueCache'

const value = (address: number): Value => ({ kind: 'mask', rect: { x: 0, y: 0, width: 10, height: 10 }, planes: [address] })

describe('value cache', () => {
  const all = { x: 0, y: 0, width: 10, height: 10 }
  const freedBy = (): { freed: number[]; cache: ValueCache } => {
    const freed: number[] = []
    return { freed, cache: new ValueCache(800, (address) => freed.push(address)) }
  }

  it('frees the least recently used first, and never what is held', () => {
    const { freed, cache } = freedBy()
    const [first, second, third] = [1, 2, 3].map((address) => cache.keep(`v${address}`, value(address))) as [Value, Value, Value]
    // All are held: over the budget nothing can go.
    expect(cache.size).toBe(1200)
    ;[second, third].forEach((one) => cache.letGo(one))
    cache.trim()
    expect(freed).toEqual([2])
    cache.letGo(first)
    cache.letGo(cache.find('v1', all)!)
    cache.letGo(cache.keep('v4', value(4)))
    expect(freed).toEqual([2, 3])
    expect(cache.find('v2', all)).toBeUndefined()
    expect(cache.find('v1', all)).toBe(first)
  })

  it('finds a value that covers more, and none that covers less', () => {
    const { cache } = freedBy()
    const kept = cache.keep('a', value(1))
    expect(cache.find('a', { x: 2, y: 3, width: 4, height: 5 })).toBe(kept)
    expect(cache.find('a', { x: 2, y: 3, width: 4, height: 8 })).toBeUndefined()
    expect(cache.find('b', all)).toBeUndefined()
  })

  it('frees what has no key when its last reader lets it go', () => {
    const { freed, cache } = freedBy()
    const once = cache.again(cache.keep(undefined, value(7)))
    cache.trim(0)
    cache.letGo(once)
    expect(freed).toEqual([])
    cache.letGo(once)
    expect(freed).toEqual([7])
    expect(cache.size).toBe(0)
    expect(() => cache.letGo(once)).toThrow('not held')
  })
})

describe('content key', () => {
  it('is the same for the same text and different for texts that differ a little', () => {
    const texts = Array.from({ length: 4000 }, (_, i) => `{"seed":${i},"length":${(i * 7) % 13}}`)
    expect(new Set(texts.map(contentKey)).size).toBe(4000)
    expect(contentKey(texts[5]!)).toBe(contentKey(texts[5]!))
    expect(contentKey('')).toMatch(/^[0-9a-f]{32}$/)
  })
})
