import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf, isWithin, largestCrop, middleOf, photoPlaceOf, showsAll, towards, turnedCrop, turnedPlaceOf, turnForLine } from './frame'

const photo = { width: 3000, height: 2000 }
const turns = fc.double({ min: -45, max: 45, noNaN: true })
const crops = fc.record({
  x: fc.double({ min: -5000, max: 5000, noNaN: true }),
  y: fc.double({ min: -5000, max: 5000, noNaN: true }),
  width: fc.double({ min: 1, max: 9000, noNaN: true }),
  height: fc.double({ min: 1, max: 9000, noNaN: true }),
  turn: turns,
})

describe('the frame of a photo', () => {
  it('lies in the photo and has at least a pixel, whatever the crop', () => {
    fc.assert(
      fc.property(crops, (crop) => {
        const { x, y, width, height } = frameOf(photo, crop)
        expect([x, y, width, height].every(Number.isInteger)).toBe(true)
        expect(x >= 0 && y >= 0 && width >= 1 && height >= 1 && x + width <= 3000 && y + height <= 2000).toBe(true)
      }),
    )
  })

  it('is all of the photo without a crop', () => {
    expect(showsAll(frameOf(photo, null), photo)).toBe(true)
    expect(showsAll(frameOf(photo, { x: 0, y: 0, width: 3000, height: 2000, turn: 0.1 }), photo)).toBe(false)
  })

  it('takes places there and back', () => {
    fc.assert(
      fc.property(crops, fc.double({ min: 0, max: 3000, noNaN: true }), fc.double({ min: 0, max: 2000, noNaN: true }), (crop, x, y) => {
        const frame = frameOf(photo, crop)
        const back = photoPlaceOf(frame, turnedPlaceOf(frame, { x, y }))
        expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(1e-6)
      }),
    )
  })

  it('turns counter-clockwise as it is seen: what lies to the right of the middle goes up', () => {
    const frame = { x: 0, y: 0, width: 3000, height: 2000, turn: 90 }
    expect(turnedPlaceOf(frame, { x: 1600, y: 1000 }).x).toBeCloseTo(1500, 9)
    expect(turnedPlaceOf(frame, { x: 1600, y: 1000 }).y).toBeCloseTo(900, 9)
  })
})

describe('a crop', () => {
  it.each([0, 3, -10, 30, 45])('that is the largest at %d degrees shows photo only, and a larger one does not', (turn) => {
    for (const shape of [1, 1.5, 2 / 3, 16 / 9, 6]) {
      const crop = largestCrop(photo, turn, shape)
      const { x, y } = middleOf(crop)
      expect(crop.width / crop.height).toBeCloseTo(shape, 9)
      expect(isWithin(crop, photo)).toBe(true)
      const larger = { ...crop, width: 1.01 * crop.width, height: 1.01 * crop.height }
      expect(isWithin({ ...larger, x: x - larger.width / 2, y: y - larger.height / 2 }, photo)).toBe(false)
    }
  })

  it('is that of the photo’s shape in a known case: a square turned by 45 degrees is smaller by the root of two', () => {
    expect(largestCrop({ width: 1000, height: 1000 }, 45).width).toBeCloseTo(1000 / Math.SQRT2, 9)
  })

  it('that is turned or pulled never shows more than photo', () => {
    fc.assert(
      fc.property(turns, crops, (turn, wanted) => {
        const crop = turnedCrop({ x: 300, y: 200, width: 2400, height: 1500, turn: 0 }, photo, turn)
        expect(isWithin(crop, photo)).toBe(true)
        expect(isWithin(towards(crop, { ...wanted, turn }, photo), photo)).toBe(true)
      }),
    )
  })
})

describe('a line that ought to lie level or to stand upright', () => {
  it.each([
    ['rises by 2 degrees to the right', 2, -2],
    ['falls by 3 degrees', -3, 3],
    ['leans to the left of upright', 92, -2],
    ['drawn from above to below', -88, -2],
  ])('that %s', (_, slope, turn) => {
    const radians = (slope * Math.PI) / 180
    const to = { x: 500 + 300 * Math.cos(radians), y: 500 - 300 * Math.sin(radians) }
    expect(turnForLine({ x: 500, y: 500 }, to)).toBeCloseTo(turn, 9)
  })
})
