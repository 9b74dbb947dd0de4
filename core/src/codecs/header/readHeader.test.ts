import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { withoutExifMark } from './exifBlock'
import type { PhotoFormat } from '../sniffFormat'
import { exifOf, readHeader, sizeOfFile } from './readHeader'

// Against sharp (libvips), which reads them by other code.

const [width, height] = [53, 37]
const picture = (): Sharp => sharp({ create: { width, height, channels: 3, background: '#8ac' } })
const clear = (): Sharp => sharp({ create: { width, height, channels: 4, background: { r: 9, g: 99, b: 200, alpha: 0.5 } } })
const told = { orientation: 6, exif: { IFD0: { Artist: 'Ada' } } }

const forms: readonly (readonly [string, PhotoFormat, () => Sharp])[] = [
  ['JPEG', 'jpeg', () => picture().withMetadata(told).withIccProfile('p3').jpeg()],
  ['progressive JPEG', 'jpeg', () => picture().jpeg({ progressive: true })],
  ['JPEG of inks', 'jpeg', () => picture().toColourspace('cmyk').jpeg()],
  ['PNG', 'png', () => picture().withMetadata(told).withIccProfile('p3').png()],
  ['PNG of 16 bits', 'png', () => picture().toColourspace('rgb16').png()],
  ['WebP', 'webp', () => picture().withMetadata(told).withIccProfile('p3').webp()],
  ['plain WebP', 'webp', () => picture().webp()],
  ['lossless WebP', 'webp', () => clear().webp({ lossless: true })],
  ['AVIF', 'avif', () => picture().withIccProfile('p3').avif({ effort: 0 })],
  ['TIFF', 'tiff', () => picture().withMetadata(told).withIccProfile('p3').tiff()],
  ['TIFF of 16 bits', 'tiff', () => picture().toColourspace('rgb16').tiff({ compression: 'lzw' })],
]

describe('headers', () => {
  it.each(forms)('of a %s say what another reader finds', async (_, format, make) => {
    const bytes = new Uint8Array(await make().toBuffer())
    const [found, theirs] = [readHeader(bytes, format), await sharp(bytes).metadata()]
    expect(sizeOfFile(bytes)).toEqual({ width: theirs.width, height: theirs.height })
    expect(found.depth).toBe(theirs.depth === 'ushort' ? 16 : 8)
    expect(found.turn).toBe(theirs.orientation ?? 1)
    expect(found.isOfInks).toBe(format === 'jpeg' && theirs.space === 'cmyk')
    expect(Buffer.from(found.profile ?? []).equals(theirs.icc ?? Buffer.alloc(0))).toBe(true)
    expect([found.isCutShort, found.isSound, found.pages]).toEqual([false, true, 1])
    if (format !== 'tiff') expect(Buffer.from(exifOf(bytes) ?? []).equals(withoutExifMark(theirs.exif ?? Buffer.alloc(0)))).toBe(true)
  })

  it.each(forms)('of a %s say nothing wrong where it is cut, at any byte', async (_, format, make) => {
    const bytes = new Uint8Array(await make().toBuffer())
    const whole = readHeader(bytes, format)
    for (let length = 0; length < bytes.length; length += 7) {
      const { width: w, height: h } = readHeader(bytes.subarray(0, length), format)
      expect([0, whole.width]).toContain(w)
      expect([0, whole.height]).toContain(h)
    }
  })
})
