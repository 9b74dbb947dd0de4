import { describe, expect, it } from 'vitest'
import { panBy, pinchBy, toScreen, viewPortFor, visibleRegion, zoomAbout } from './viewPort'

const photo = { x: 0, y: 0, width: 3000, height: 2000 }
const screen = { width: 900, height: 600 }
const fitted = viewPortFor({ zoom: 'fit', centreX: 0, centreY: 0 }, photo, screen, 1)

describe('the view', () => {
  it('fits the whole photo with a margin, in the middle', () => {
    const left = toScreen(fitted, 0, 0)
    const right = toScreen(fitted, 3000, 2000)
    expect(left.x).toBeGreaterThan(7)
    expect(left.y).toBeGreaterThan(7)
    expect(left.x + right.x).toBeCloseTo(900, 6)
    expect(left.y + right.y).toBeCloseTo(600, 6)
    expect(visibleRegion(fitted, photo)).toEqual({ x: 0, y: 0, width: 3000, height: 2000 })
  })

  it.each([1.25, 0.5, 8])('zooming by %s keeps the point under the pointer where it is', (factor) => {
    const before = viewPortFor({ zoom: 0.6, centreX: 1400, centreY: 900 }, photo, screen, 1)
    const pointer = { x: 320, y: 410 }
    const under = { x: before.centreX + (pointer.x - 450) / 0.6, y: before.centreY + (pointer.y - 300) / 0.6 }
    const place = zoomAbout(before, photo, factor, pointer.x, pointer.y)
    const found = toScreen(viewPortFor(place, photo, screen, 1), under.x, under.y)
    expect(found.x).toBeCloseTo(pointer.x, 6)
    expect(found.y).toBeCloseTo(pointer.y, 6)
  })

  it('two fingers keep what lies under them, moved together and apart', () => {
    const before = viewPortFor({ zoom: 0.6, centreX: 1400, centreY: 900 }, photo, screen, 1)
    const [first, second] = [
      { x: 300, y: 200 },
      { x: 500, y: 350 },
    ]
    const under = (at: { x: number; y: number }) => ({ x: before.centreX + (at.x - 450) / 0.6, y: before.centreY + (at.y - 300) / 0.6 })
    // Both move by (40, -20), one after the other: the photo goes with them, as large as it was.
    const half = viewPortFor(pinchBy(before, photo, first, { x: 340, y: 180 }, second), photo, screen, 1)
    const moved = viewPortFor(pinchBy(half, photo, second, { x: 540, y: 330 }, { x: 340, y: 180 }), photo, screen, 1)
    expect(moved.zoom).toBeCloseTo(before.zoom, 6)
    const found = toScreen(moved, under(first).x, under(first).y)
    expect(found.x).toBeCloseTo(340, 6)
    expect(found.y).toBeCloseTo(180, 6)
    // One goes twice as far away from the other along the same line: all is twice as large, and still under both.
    const apart = viewPortFor(pinchBy(before, photo, second, { x: 700, y: 500 }, first), photo, screen, 1)
    expect(apart.zoom).toBeCloseTo(1.2, 6)
    const kept = toScreen(apart, under(first).x, under(first).y)
    expect(kept.x).toBeCloseTo(300, 6)
    expect(kept.y).toBeCloseTo(200, 6)
  })

  it('cannot lose the photo, nor zoom without end', () => {
    const place = panBy(fitted, photo, -99999, 99999)
    expect([place.centreX, place.centreY]).toEqual([3000, 0])
    expect(zoomAbout(fitted, photo, 1e9, 0, 0).zoom).toBe(16)
    expect(zoomAbout(fitted, photo, 1e-9, 0, 0).zoom).toBeGreaterThan(0)
  })

  it('sees only what is on the photo', () => {
    const port = viewPortFor({ zoom: 1, centreX: 100, centreY: 1950 }, photo, screen, 2)
    expect(visibleRegion(port, photo)).toEqual({ x: 0, y: 1650, width: 550, height: 350 })
  })
})
