import { describe, expect, it } from 'vitest'
import type { Value } from '../planes/value'
import { contentKey } from './contentKey'
import { ValueCache } from './valueCache'

const value = (address: number): Value => ({ kind: 'mask', rect: { x: 0, y: 0, width: 10, height: 10 }, planes: [address] })

describe('value cache', () => {
  it('frees the least recently used first, and never what is held', () => {
    const freed: number[] = []
    const cache = new ValueCache(800, (address) => freed.push(address))
    const [first, second] = [1, 2].map((address) => cache.keep(`v${address}`, value(address))) as [Value, Value]
    const third = cache.keep('v3', value(3))
    // All are held: over the budget nothing can go.
    expect(cache.size).toBe(1200)
    ;[second, third].forEach((one) => cache.letGo(one))
    cache.trim()
    expect(freed).toEqual([2])
    cache.letGo(first)
    cache.letGo(cache.find('v1')!)
    cache.letGo(cache.keep('v4', value(4)))
    expect(freed).toEqual([2, 3])
    expect(cache.find('v2')).toBeUndefined()
    expect(cache.find('v1')).toBe(first)
  })

  it('frees what has no key when its last reader lets it go', () => {
    const freed: number[] = []
    const cache = new ValueCache(800, (address) => freed.push(address))
    const once = cache.keep(undefined, value(7))
    cache.trim(0)
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
