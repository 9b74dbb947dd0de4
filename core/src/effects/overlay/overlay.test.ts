import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { testCodecs } from '../../../test-support/codecs'
import { loadKernels } from '../../../test-support/kernels'
import { effectOf, fieldOf, pictureOf, sumOf } from '../../../test-support/looks'
import { evaluatorFor, photoFrom, samplePixels } from '../../../test-support/pictures'
import { openPhoto } from '../../codecs/openPhoto'
import type { Evaluator } from '../../graph/evaluator'
import type { Kernels } from '../../graph/operation'
import { coverId, cutOutId } from '../../photo/pictureIds'
import { withReductions } from '../../photo/reducePhoto'

const size = { width: 300, height: 200 }
const count = size.width * size.height
/** Red from left to right, green from above to below. */
const ramps = Uint8ClampedArray.from({ length: 4 * count }, (_, k) => {
  const [x, y] = [Math.floor(k / 4) % size.width, Math.floor(k / 4 / size.width)]
  return [(255 * x) / size.width, (255 * y) / size.height, 128, 255][k % 4]!
})
const other = { width: 90, height: 60 }
const otherPixels = samplePixels(other.width, other.height, 4)

let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  const photos = [
    photoFrom(kernels, 'photo', size.width, size.height, ramps),
    photoFrom(kernels, 'other', other.width, other.height, otherPixels),
  ]
  evaluator = evaluatorFor(kernels, ...photos)
})

describe('a picture laid over the photo', () => {
  const reference = { id: 'other', fileName: 'other.png', ...other }
  const laid = (pattern: object = {}, shape: object = {}) =>
    effectOf(size, 'overlay', 'as-it-is', { picture: reference, x: 150, y: 100, width: 90, turn: 0, side: 'front', ...pattern }, shape)
  const inside = (pixels: Uint8ClampedArray, x: number, y: number): number[] => [0, 1, 2].map((k) => pixels[4 * (y * size.width + x) + k]!)

  it('lies pixel for pixel where it is put, and leaves the rest', () => {
    const pixels = pictureOf(evaluator, size, laid())
    for (let y = 1; y < other.height - 1; y += 3)
      for (let x = 1; x < other.width - 1; x += 3)
        inside(pixels, x + 105, y + 70).forEach((code, k) =>
          expect(Math.abs(code - otherPixels[4 * (y * other.width + x) + k]!)).toBeLessThan(24),
        )
    expect(inside(pixels, 20, 20)).toEqual([0, 1, 2].map((k) => ramps[4 * (20 * size.width + 20) + k]))
  })

  // The means over areas of sharp (libvips), in linear light.
  it('is the mean of what each pixel covers when it is laid smaller', async () => {
    const pixels = pictureOf(evaluator, size, laid({ width: 30 }))
    const small = await sharp(otherPixels, { raw: { ...other, channels: 4 } })
      .gamma(2.2)
      .resize(30, 20, { kernel: 'linear' })
      .removeAlpha()
      .raw()
      .toBuffer()
    let off = 0
    for (let y = 2; y < 18; y++)
      for (let x = 2; x < 28; x++)
        inside(pixels, x + 135, y + 90).forEach((code, k) => (off += Math.abs(code - small[3 * (y * 30 + x) + k]!)))
    expect(off / (16 * 26 * 3)).toBeLessThan(10)
  })

  it('is turned, and seen from behind', () => {
    const still = pictureOf(evaluator, size, laid({ width: 180 }))
    const upsideDown = pictureOf(evaluator, size, laid({ width: 180, turn: 180 }))
    const behind = pictureOf(evaluator, size, laid({ width: 180, side: 'behind' }))
    for (let y = 60; y < 140; y += 7)
      for (let x = 80; x < 220; x += 7) {
        inside(upsideDown, 299 - x, 199 - y).forEach((code, k) => expect(Math.abs(code - inside(still, x, y)[k]!)).toBeLessThan(3))
        inside(behind, 299 - x, y).forEach((code, k) => expect(Math.abs(code - inside(still, x, y)[k]!)).toBeLessThan(3))
      }
  })

  it('leaves out a colour, or what is dark', () => {
    const [r, g, b] = [0, 1, 2].map((k) => otherPixels[4 * (30 * other.width + 45) + k]!)
    const hex = `#${[r, g, b].map((code) => code!.toString(16).padStart(2, '0')).join('')}`
    const without = fieldOf(evaluator, size, laid({}, { without: 'colour', colour: hex, reach: 10 }))
    expect(without[100 * size.width + 150]).toBeLessThan(0.05)
    const light = fieldOf(evaluator, size, laid({}, { without: 'dark' }))
    expect(light[100 * size.width + 150]! - Math.max(r!, g!, b!) / 255).toBeLessThan(0.05)
  })

  // libvips' "over" of Porter and Duff, through sharp; on encoded tones, as the mode is.
  it.each([90, 30])('leaves out what is transparent in it, by as much, laid %i px wide', async (wide) => {
    // What cannot be seen is green; it must not be seen at the edges either.
    const cut = Uint8ClampedArray.from(otherPixels, (code, k) => {
      const [x, y] = [Math.floor(k / 4) % other.width, Math.floor(k / 4 / other.width)]
      const alpha = x < 30 ? 0 : x < 60 ? Math.round((255 * y) / other.height) : 255
      if (k % 4 === 3) return alpha
      return alpha === 0 ? [0, 255, 0][k % 4]! : code
    })
    const png = await sharp(cut, { raw: { ...other, channels: 4 } })
      .png()
      .toBuffer()
    const { full, cover, transparent } = await openPhoto(new Uint8Array(png), 'cut.png', testCodecs, { cutOut: true })
    expect(transparent).toBe(true)
    const id = cutOutId('cut')
    const own = evaluatorFor(
      kernels,
      photoFrom(kernels, 'photo', size.width, size.height, ramps),
      withReductions(kernels, id, full),
      withReductions(kernels, coverId(id), cover!),
    )
    const effect = laid({ picture: { ...reference, id }, width: wide })
    effect.mix = { mode: 'normal', amount: 100, linear: false }
    const pixels = pictureOf(own, size, effect)
    const height = (wide * other.height) / other.width
    const small = await sharp(png).resize(wide, height, { kernel: 'linear' }).png().toBuffer()
    const over = await sharp(ramps, { raw: { ...size, channels: 4 } })
      .composite([{ input: small, left: 150 - wide / 2, top: 100 - height / 2 }])
      .removeAlpha()
      .raw()
      .toBuffer()
    let [off, places] = [0, 0]
    for (let y = 100 - height / 2 + 2; y < 98 + height / 2; y++)
      for (let x = 152 - wide / 2; x < 148 + wide / 2; x++)
        for (const [k, code] of inside(pixels, x, y).entries()) {
          off += Math.abs(code - over[3 * (y * size.width + x) + k]!)
          places++
        }
    expect(off / places).toBeLessThan(wide === other.width ? 1.5 : 6)
    // Where nothing is there the photo is as it was.
    expect(inside(pixels, 152 - wide / 2, 100)).toEqual([0, 1, 2].map((k) => ramps[4 * (100 * size.width + 152 - wide / 2) + k]))
  })

  it('is nothing without a picture, and ends at any size', () => {
    expect(sumOf(fieldOf(evaluator, size, laid({ picture: null })), size)).toBe(0)
    for (const width of [1, 100000]) expect(pictureOf(evaluator, size, laid({ width }))).toHaveLength(4 * count)
  })
})
