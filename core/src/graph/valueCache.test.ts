import { describe, expect, it } from 'vitest'
import type { Value } from '../planes/value'
import { contentKey } from './contentKey'
import { ValueCache } from './valueCache'

const value = (address: number): Value => ({ kind: 'mask', rect: { x: 0, y: 0, width: 10, height: 10 }, planes: [address] })

describe('value cache', () => {
  it('frees the least recently used first, and only when it is trimmed', () => {
    const freed: number[] = []
    const cache = new ValueCache(800, (address) => freed.push(address))
    ;[1, 2, 3].forEach((address) => cache.put(`v${address}`, value(address)))
    expect(cache.size).toBe(1200)
    expect(freed).toEqual([])
    cache.get('v1')
    cache.trim()
    expect(freed).toEqual([2])
    expect(cache.get('v2')).toBeUndefined()
    expect(cache.get('v1')).toBeDefined()
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
