import { inflateSync } from 'node:zlib'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { deepPictureIn, fileOf } from '../../../test-support/codecs'
import { samplePixels } from '../../../test-support/pictures'
import { everything } from '../../../test-support/sampled'
import { profileOf } from '../../colour/colourSpace'
import { readPngHeader } from '../header/pngHeader'
import { BAND_ROWS } from './fileFormat'
import { formatOfName, type ExportFormat } from './registry'

/** Three bands, the last of them of few rows; no block of a JPEG divides the width. */
const size = { width: 201, height: 2 * BAND_ROWS + 37 }
const rgba = samplePixels(size.width, size.height)
const written = (format: ExportFormat, quality = 92) => fileOf(rgba, size, { format, quality, depth: 8 })

const read = async (file: Buffer): Promise<Buffer> => sharp(file, { failOn: 'warning' }).ensureAlpha().raw().toBuffer()

// Read by sharp 0.35 (libspng, libjpeg-turbo) and Node's zlib.
describe('writing pictures band by band', () => {
  it('writes a PNG that reads back exactly, with sound checksums', async () => {
    const file = await written('png')
    expect((await read(file)).equals(Buffer.from(rgba))).toBe(true)
    expect(readPngHeader(file)).toMatchObject({ isCutShort: false, isSound: true })
    // It checks the sum over all bands, and that nothing comes after the last block.
    expect(inflateSync(dataOf(file))).toHaveLength((3 * size.width + 1) * size.height)
  })

  it('writes a PNG of 16 bits that reads back exactly', async () => {
    const deep = Uint16Array.from({ length: size.width * size.height * 4 }, (_, i) =>
      i % 4 === 3 ? 65535 : (i * 40503 + (i >> 7) * 977) % 65536,
    )
    const file = await fileOf(new Uint8ClampedArray(deep.buffer), size, { format: 'png', quality: 0, depth: 16 })
    const { is, data } = await deepPictureIn(file)
    expect(is).toEqual([size.width, size.height, 'ushort'])
    expect(data.equals(Buffer.from(deep.buffer))).toBe(true)
  })

  it('filters the rows of a PNG, and a file is not much larger than that of an encoder that takes three times as long', async () => {
    const file = await written('png')
    const rows = inflateSync(dataOf(file))
    const kinds = new Set(Array.from({ length: size.height }, (_, y) => rows[y * (3 * size.width + 1)]))
    expect([...kinds].toSorted()).toEqual([1, 2, 3, 4])
    const other = await sharp(rgba, { raw: { ...size, channels: 4 } })
      .removeAlpha()
      .png({ adaptiveFiltering: true, compressionLevel: 6 })
      .toBuffer()
    expect(file.length / other.length).toBeLessThan(1.35)
  })

  const sizes = [
    [60, 201],
    [92, 201],
    // So wide that a band has several restart intervals: for the soak.
    [92, 17001],
  ] as const
  it.each(everything ? sizes : sizes.slice(0, 2))(
    'writes a JPEG of quality %s, %s px wide, as close to the picture at the seams as elsewhere',
    async (quality, width) => {
      const height = width === size.width ? size.height : 160
      const picture = width === size.width ? rgba : samplePixels(width, height)
      const file = await fileOf(picture, { width, height }, { format: 'jpeg', quality, depth: 8 })
      const codes = await read(file)
      expect(codes).toHaveLength(picture.length)
      const error = (from: number, to: number) => {
        const [first, last] = [from * width * 4, to * width * 4]
        return codes.subarray(first, last).reduce((sum, code, i) => sum + Math.abs(code - (picture[first + i] ?? 0)), 0) / (last - first)
      }
      expect(error(0, height)).toBeLessThan(quality > 90 ? 3 : 8)
      for (let seam = 64; seam < height - 8; seam += 64) expect(error(seam - 8, seam + 8)).toBeLessThan(2 * error(0, height) + 1)
    },
  )

  it('writes a WebP that is close to the picture, the closer the higher its quality', async () => {
    const offs = await Promise.all(
      [40, 92].map(async (quality) => {
        const codes = await read(await written('webp', quality))
        expect(codes).toHaveLength(rgba.length)
        return codes.reduce((sum, code, i) => sum + Math.abs(code - (rgba[i] ?? 0)), 0) / codes.length
      }),
    )
    expect(offs[1]!).toBeLessThan(4)
    expect(offs[0]!).toBeGreaterThan(offs[1]!)
  })

  it('writes an AVIF whose pictures join without a seam, the closer the higher its quality', async () => {
    const offs = await Promise.all(
      [40, 92].map(async (quality) => {
        const codes = await read(await written('avif', quality))
        expect(codes).toHaveLength(rgba.length)
        const off = (from: number, to: number) =>
          codes
            .subarray(from * size.width * 4, to * size.width * 4)
            .reduce((sum, code, i) => sum + Math.abs(code - (rgba[4 * from * size.width + i] ?? 0)), 0) /
          ((to - from) * size.width * 4)
        expect(off(BAND_ROWS - 4, BAND_ROWS + 4)).toBeLessThan(1.5 * off(0, size.height) + 1)
        return off(0, size.height)
      }),
    )
    expect(offs[1]!).toBeLessThan(4)
    expect(offs[0]!).toBeGreaterThan(offs[1]!)
  })

  it.each([
    [1, 1],
    [20, 700],
    [333, 40],
  ])('writes an AVIF of %d × %d px with the profile of its space', async (width, height) => {
    const pixels = samplePixels(width, height)
    const file = await fileOf(pixels, { width, height }, { format: 'avif', quality: 95, depth: 8, space: 'displayP3' })
    const { icc, ...is } = await sharp(file).metadata()
    expect([is.width, is.height]).toEqual([width, height])
    expect(Buffer.compare(icc!, profileOf('displayP3'))).toBe(0)
  })

  it('knows a format by the ending of a name', () => {
    expect(['a.png', 'b.JPG', 'c.x.jpeg', 'd.gif', 'png'].map(formatOfName)).toEqual(['png', 'jpeg', 'jpeg', undefined, undefined])
  })
})

/** The compressed data of a PNG. */
function dataOf(file: Buffer): Buffer {
  const parts: Buffer[] = []
  for (let at = 8; at < file.length; at += 12 + file.readUInt32BE(at)) {
    if (file.toString('latin1', at + 4, at + 8) === 'IDAT') parts.push(file.subarray(at + 8, at + 8 + file.readUInt32BE(at)))
  }
  return Buffer.concat(parts)
}
