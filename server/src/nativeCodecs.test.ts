import type { ExportFormat } from '@welkinar/core'
import type { Codecs } from '@welkinar/core/worker'
import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { openPhoto } from '../../core/src/codecs/openPhoto'
import { codecsWith, fileOf, testCodecs } from '../../core/test-support/codecs'
import { nativeCodecs, nativeDeflate } from './nativeCodecs'

const native = nativeCodecs({ ...testCodecs, encodeBand: codecsWith(nativeDeflate).encodeBand })

const noise = { type: 'gaussian' as const, mean: 120, sigma: 50 }
/** Colour noise over an odd size, which blocks and reduced colour do not divide. */
const picture = (width = 201, height = 133): Sharp =>
  sharp(Buffer.from(Array.from({ length: width * height * 3 }, (_, i) => (i * i * 31 + (i >> 5) * 7) % 256)), {
    raw: { width, height, channels: 3 },
  })

const files: Record<string, () => Promise<Buffer>> = {
  'plain.jpg': () => picture().jpeg({ quality: 80 }).toBuffer(),
  'full colour.jpg': () => picture().jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
  'progressive.jpg': () => picture(333, 77).jpeg({ progressive: true, quality: 40 }).toBuffer(),
  'grey.jpg': () => picture().greyscale().jpeg().toBuffer(),
  'turned.jpg': () => picture().jpeg().withMetadata({ orientation: 6 }).toBuffer(),
  'with a profile.jpg': () => picture().withIccProfile('p3').jpeg().toBuffer(),
  'plain.png': () => picture().png().toBuffer(),
  'interlaced.png': () => picture().png({ progressive: true }).toBuffer(),
  'palette.png': () => picture().png({ palette: true }).toBuffer(),
  'grey.png': () =>
    sharp({ create: { width: 61, height: 40, channels: 3, background: '#000', noise } })
      .greyscale()
      .png()
      .toBuffer(),
  'deep.png': () => picture().toColourspace('rgb16').png().toBuffer(),
  'clear.png': () => picture().ensureAlpha(0.4).png().toBuffer(),
  'plain.webp': () => picture().webp().toBuffer(),
  'lossless.webp': () => picture().webp({ lossless: true }).toBuffer(),
  'plain.avif': () => picture().avif({ effort: 0 }).toBuffer(),
}

describe('native codecs', () => {
  it.each(Object.keys(files))('read the same pixels as those of the browser: %s', async (name) => {
    const bytes = new Uint8Array(await files[name]!())
    const read = async (codecs: Codecs) => {
      const { full, notices } = await openPhoto(bytes, name, codecs)
      return { ...full, pixels: Buffer.from(full.pixels as ArrayBuffer).toString('base64'), notices }
    }
    expect(await read(native)).toEqual(await read(testCodecs))
  })

  it.each([
    ['a gap', (bytes: Buffer) => bytes.fill(0, 9000, 9800)],
    ['an end behind a half', (bytes: Buffer) => Buffer.from([...bytes.subarray(0, 9000), 0xff, 0xd9])],
  ])('say of a JPEG with %s that it is damaged, as those of the browser do', async (_, spoil) => {
    const bytes = new Uint8Array(spoil(await picture().jpeg().toBuffer()))
    for (const codecs of [native, testCodecs]) {
      expect((await openPhoto(bytes, 'a.jpg', codecs)).notices.join()).toContain('“a.jpg” is damaged in places')
    }
  })

  it('write a PNG that is the same file, and a JPEG that is as near to the picture', async () => {
    const size = { width: 201, height: 600 }
    const pixels = new Uint8ClampedArray(await picture(size.width, size.height).ensureAlpha().raw().toBuffer())
    const written = (codecs: Codecs, format: ExportFormat) => fileOf(pixels, size, { format, quality: 92, depth: 8 }, codecs)
    expect((await written(native, 'png')).equals(await written(testCodecs, 'png'))).toBe(true)
    const error = async (codecs: Codecs): Promise<number> => {
      const found = await sharp(await written(codecs, 'jpeg'))
        .ensureAlpha()
        .raw()
        .toBuffer()
      return found.reduce((sum, code, i) => sum + Math.abs(code - pixels[i]!), 0) / found.length
    }
    // Two encoders: not the same codes, but as good a picture of the same quality.
    expect(Math.abs((await error(native)) / (await error(testCodecs)) - 1)).toBeLessThan(0.1)
  })

  it.each([80, 92])('write a JPEG in pieces with the pixels of one that is written at once, quality %s', async (quality) => {
    const size = { width: 333, height: 1300 }
    const pixels = new Uint8ClampedArray(await picture(size.width, size.height).ensureAlpha().raw().toBuffer())
    const file = await fileOf(pixels, size, { format: 'jpeg', quality, depth: 8 }, native)
    const atOnce = await picture(size.width, size.height)
      .jpeg({ quality, chromaSubsampling: quality < 90 ? '4:2:0' : '4:4:4', optimiseCoding: false })
      .toBuffer()
    const read = (bytes: Buffer) => sharp(bytes, { failOn: 'warning', ignoreIcc: true }).raw().toBuffer()
    expect((await read(file)).equals(await read(atOnce))).toBe(true)
  })
})
