import { describe, expect, it } from 'vitest'
import type { Value } from '../planes/value'
import { contentKey } from './contentKey'
import { ValueCache, worth, type Worth } from './valueCache'

const value = (address: number): Value => ({ kind: 'mask', rect: { x: 0, y: 0, width: 10, height: 10 }, planes: [address] })

describe('value cache', () => {
  const all = { x: 0, y: 0, width: 10, height: 10 }
  const freedBy = (): { freed: number[]; cache: ValueCache } => {
    const freed: number[] = []
    return { freed, cache: new ValueCache({ usual: 800, most: 1200 }, (address) => freed.push(address)) }
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

  it('frees what is worth less first', () => {
    const { freed, cache } = freedBy()
    cache.letGo(cache.keep('a', value(1), worth.manyTiles))
    cache.letGo(cache.keep('b', value(2), worth.stage))
    cache.letGo(cache.keep('c', value(3), worth.step))
    cache.trim()
    // The stage had to go while the step was held.
    expect(freed).toEqual([2])
    cache.letGo(cache.keep('d', value(4), worth.stage))
    expect(freed).toEqual([2, 3])
    // What many tiles turn out to read is worth more from then on.
    cache.letGo(cache.find('d', all, worth.manyTiles)!)
    cache.letGo(cache.keep('e', value(5), worth.stage))
    cache.letGo(cache.keep('f', value(6), worth.step))
    // Among what is worth most the oldest went first, then the stage before it.
    expect(freed).toEqual([2, 3, 1, 5])
  })

  it('leaves pictures half of the room, whatever many tiles read, and takes it only when nothing else is left', () => {
    const freed: number[] = []
    const cache = new ValueCache({ usual: 2400, most: 2400 }, (address) => freed.push(address))
    for (const address of [1, 2, 3, 4]) cache.letGo(cache.keep(`p${address}`, value(address), worth.picture))
    const tiles = [11, 12, 13].map((address) => cache.keep(`t${address}`, value(address), worth.manyTiles))
    // Four pictures are more than half.
    expect(freed).toEqual([1])
    tiles.forEach((tile) => cache.letGo(tile))
    for (const address of [14, 15]) cache.letGo(cache.keep(`t${address}`, value(address), worth.manyTiles))
    expect(freed).toEqual([1, 11, 12])
    ;[21, 22, 23, 24].forEach((address) => cache.keep(`t${address}`, value(address), worth.manyTiles))
    // What is held stays, so the pictures have to go.
    expect(freed).toEqual([1, 11, 12, 13, 14, 15, 2])
  })

  it('frees what only led to other blocks before what tiles read, and of equals what took the least to compute', () => {
    const { freed, cache } = freedBy()
    cache.letGo(cache.keep('a', value(1), worth.manyTiles, 100))
    cache.letGo(cache.keep('b', value(2), worth.block, 9000))
    cache.letGo(cache.keep('c', value(3), worth.manyTiles, 5000))
    expect(freed).toEqual([2])
    cache.letGo(cache.keep('d', value(4), worth.manyTiles, 3000))
    expect(freed).toEqual([2, 1])
    // What goes raises the level: what was dear once, and is not read again, goes at last.
    for (const n of [5, 6, 7, 8, 9]) cache.letGo(cache.keep(`e${n}`, value(n), worth.manyTiles, 2500))
    expect(freed).toContain(4)
    expect(freed).toContain(3)
  })

  it('has more room once what many tiles read had to go and is wanted again, up to the most', () => {
    const { freed, cache } = freedBy()
    for (const round of [0, 10, 20]) for (const n of [1, 2, 3, 4]) cache.letGo(cache.keep(`v${n}`, value(round + n), worth.manyTiles))
    // Two fit at first; the first that comes again makes room for a third, and then no more.
    expect(freed).toEqual([1, 2, 3, 4, 11, 12, 13, 14, 21])
    expect(cache.size).toBe(1200)
    cache.clear()
    expect(cache.size).toBe(0)
    cache.letGo(cache.keep('v1', value(31), worth.manyTiles))
    for (const n of [2, 3]) cache.letGo(cache.keep(`v${n}`, value(30 + n), worth.manyTiles))
    expect(cache.size).toBe(800)
  })

  it('has less room for a small photo, and never more than the usual', () => {
    const cache = new ValueCache({ usual: 1200, most: 1200, small: { least: 200, perPixel: 2 } }, () => undefined)
    const roomFor = (pixels: number): number => {
      cache.fitTo(pixels)
      for (const n of [1, 2, 3, 4]) cache.letGo(cache.keep(`${pixels} ${n}`, value(n)))
      return cache.size
    }
    expect([100, 300, 500, 900].map(roomFor)).toEqual([400, 800, 1200, 1200])
  })

  it('frees what the last pictures on a grid did not read before anything that is in use, and does not take it for missed', () => {
    const freed: number[] = []
    const cache = new ValueCache({ usual: 1600, most: 3200 }, (address) => freed.push(address))
    const keep = (address: number, own: Worth, work = 0): void => cache.letGo(cache.keep(`t${address}`, value(address), own, work))
    let pictures = 0
    const begin = (grid: string): void => cache.beginPicture(`picture ${pictures++}`, grid)
    begin('close')
    // What took a thousand times as long, and a picture, neither of which is read again.
    keep(1, worth.manyTiles, 1e6)
    keep(2, worth.picture)
    begin('fitted')
    keep(3, worth.manyTiles, 1e6)
    ;[1, 2, 3].forEach(() => begin('close'))
    // The same picture again is no new one.
    cache.beginPicture(`picture ${pictures - 1}`, 'close')
    const held = cache.find('t2', all)!
    keep(4, worth.manyTiles)
    keep(5, worth.manyTiles)
    expect(freed).toEqual([1])
    // The only picture on another grid stays, until there were many on any.
    keep(6, worth.block)
    expect(freed).toEqual([1, 4])
    for (let i = 0; i < 41; i++) begin('coarse')
    cache.letGo(held)
    keep(7, worth.block)
    expect(freed).toEqual([1, 4, 3])
    // What was long gone was not missed: all would fit else.
    ;[1, 3].forEach((address) => keep(address, worth.manyTiles))
    expect(cache.size).toBeLessThanOrEqual(1600)
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
    cache.clear()
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
