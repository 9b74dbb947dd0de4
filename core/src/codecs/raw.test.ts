import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../test-support/codecs'
import { encodeSrgb } from '../../test-support/colourDifference'
import { dngOf } from '../../test-support/dng'
import { openPhoto } from './openPhoto'

// Raw files that are put together here (DNG 1.4, ITU-T T.81 annex H), of a picture whose light is known. Those of cameras could not be had.

const size = { width: 96, height: 64 }
/** Four even fields, linear light. */
const fields = [
  [0.05, 0.05, 0.05],
  [0.4, 0.2, 0.1],
  [0.1, 0.3, 0.5],
  [0.8, 0.8, 0.8],
] as const
const fieldAt = (x: number, y: number) => fields[2 * (y < size.height / 2 ? 0 : 1) + (x < size.width / 2 ? 0 : 1)]!
const light = (x: number, y: number, colour: number): number => fieldAt(x, y)[colour]!

describe('a raw file', () => {
  it.each([
    ['red first', [0, 1, 1, 2], false],
    ['red first, compressed without loss', [0, 1, 1, 2], true],
    ['green first', [1, 0, 2, 1], false],
    ['blue first, compressed without loss', [2, 1, 1, 0], true],
  ] as const)('with a mosaic that has %s has the colours that it was made of', async (_, pattern, compressed) => {
    const { full } = await openPhoto(dngOf({ ...size, pattern, compressed, light }), 'shot.dng', testCodecs)
    expect([full.width, full.height, full.format]).toEqual([size.width, size.height, 'rgb16'])
    const planes = new Uint16Array(full.pixels)
    for (const [x, y] of [
      [20, 14],
      [74, 14],
      [20, 48],
      [74, 48],
    ] as const) {
      for (let k = 0; k < 3; k++) {
        const found = planes[k * size.width * size.height + y * size.width + x]! / 65535
        expect(Math.abs(found - encodeSrgb(fieldAt(x, y)[k]!)), `${x}, ${y}, ${k}`).toBeLessThan(0.008)
      }
    }
  })

  it('is there at half its size before, in the same colours', async () => {
    const { width, height, data } = (await testCodecs.decodeQuickly(
      'raw',
      dngOf({ ...size, pattern: [0, 1, 1, 2], compressed: true, light }),
    ))!
    expect([width, height]).toEqual([size.width / 2, size.height / 2])
    for (const [x, y] of [
      [20, 14],
      [74, 48],
    ] as const)
      for (let k = 0; k < 3; k++) {
        const found = data[4 * ((y / 2) * width + x / 2) + k]! / 65535
        expect(Math.abs(found - encodeSrgb(fieldAt(x, y)[k]!)), `${x}, ${y}, ${k}`).toBeLessThan(0.008)
      }
    expect(await testCodecs.decodeQuickly('jpeg', new Uint8Array(40))).toBeUndefined()
  })

  it('of a camera that sees more than sRGB says so, and has all its colours in Display-P3', async () => {
    const vivid = (x: number, _y: number, colour: number): number => (x < 48 ? [0.02, 0.6, 0.05] : [0.5, 0.5, 0.5])[colour]!
    const file = dngOf({ ...size, pattern: [0, 1, 1, 2], compressed: false, wide: true, light: vivid })
    expect((await openPhoto(file, 'shot.dng', testCodecs, { space: 'srgb' })).wide).toBe(true)
    const { full, wide } = await openPhoto(file, 'shot.dng', testCodecs, { space: 'displayP3' })
    expect(wide).toBe(false)
    const planes = new Uint16Array(full.pixels)
    for (const x of [20, 74])
      for (let k = 0; k < 3; k++) {
        const found = planes[k * size.width * size.height + 30 * size.width + x]! / 65535
        expect(Math.abs(found - encodeSrgb(vivid(x, 30, k))), `${x}, ${k}`).toBeLessThan(0.012)
      }
    const calm = dngOf({ ...size, pattern: [0, 1, 1, 2], compressed: false, wide: true, light: (x) => 0.1 + x / 200 })
    expect((await openPhoto(calm, 'shot.dng', testCodecs, { space: 'srgb' })).wide).toBe(false)
  })

  it('that was held upright stands upright', async () => {
    const { full } = await openPhoto(
      dngOf({ ...size, pattern: [0, 1, 1, 2], compressed: false, orientation: 6, light }),
      'shot.dng',
      testCodecs,
    )
    expect([full.width, full.height]).toEqual([size.height, size.width])
    // Turned clockwise by a quarter: what was below at the left is above at the left.
    const planes = new Uint16Array(full.pixels)
    expect(planes[14 * size.height + 14]! / 65535).toBeCloseTo(encodeSrgb(fields[2][0]), 2)
  })

  it('that is cut short says so, or gives what there is', async () => {
    const file = dngOf({ ...size, pattern: [0, 1, 1, 2], compressed: true, light })
    const opened = openPhoto(file.slice(0, 260), 'short.dng', testCodecs)
    await expect(opened).rejects.toThrow(/“short.dng” cannot be opened: it is a raw file that cannot be read/)
  })
})
