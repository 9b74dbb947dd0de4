import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { deepPictureIn, fileOf, testCodecs } from '../../../../test-support/codecs'
import { samplePixels } from '../../../../test-support/pictures'
import { openPhoto } from '../../openPhoto'
import { BAND_ROWS } from '../fileFormat'

// Files that we write are read by sharp 0.35 (libtiff), and files that it writes, or that are put together here from TIFF 6.0, are read by us.

const size = { width: 83, height: BAND_ROWS + 29 }
const rgba = samplePixels(size.width, size.height)
const deep = Uint16Array.from({ length: size.width * size.height * 4 }, (_, i) =>
  i % 4 === 3 ? 65535 : (i * 40503 + (i >> 7) * 977) % 65536,
)

/** Red, green, blue of an opened file, of the depth that it is held with. */
async function opened(file: Uint8Array): Promise<{ width: number; height: number; depth: number; codes: number[] }> {
  const { full } = await openPhoto(file, 'a.tif', testCodecs)
  const { width, height, format, pixels } = full
  const count = width * height
  if (format === 'rgba8') return { width, height, depth: 8, codes: [...new Uint8Array(pixels)].filter((_, i) => i % 4 < 3) }
  const planes = new Uint16Array(pixels)
  return { width, height, depth: 16, codes: Array.from({ length: 3 * count }, (_, i) => planes[(i % 3) * count + Math.floor(i / 3)]!) }
}

/** Whether two lists are the same; to be told where they differ would take seconds. */
const isSame = (a: readonly number[], b: readonly number[]): boolean => a.length === b.length && a.every((code, i) => code === b[i])

describe('writing a TIFF', () => {
  it('of 8 bits gives every pixel back, and says what wrote it', async () => {
    const file = await fileOf(rgba, size, { format: 'tiff', quality: 0, depth: 8 })
    expect((await sharp(file, { failOn: 'warning' }).ensureAlpha().raw().toBuffer()).equals(Buffer.from(rgba))).toBe(true)
    expect(file.includes('Welkinar\0')).toBe(true)
    expect(
      isSame(
        (await opened(file)).codes,
        [...rgba].filter((_, i) => i % 4 < 3),
      ),
    ).toBe(true)
  })

  it('of 16 bits gives every pixel back', async () => {
    const file = await fileOf(new Uint8ClampedArray(deep.buffer), size, { format: 'tiff', quality: 0, depth: 16 })
    const { is, data } = await deepPictureIn(file)
    expect(is).toEqual([size.width, size.height, 'ushort'])
    expect(data.equals(Buffer.from(deep.buffer))).toBe(true)
    const back = await opened(file)
    expect(back.depth).toBe(16)
    expect(
      isSame(
        back.codes,
        [...deep].filter((_, i) => i % 4 < 3),
      ),
    ).toBe(true)
  })
})

describe('reading a TIFF', () => {
  const source = () => sharp(rgba, { raw: { ...size, channels: 4 } }).removeAlpha()
  const wanted = [...rgba].filter((_, i) => i % 4 < 3)

  it.each([
    ['not compressed', { compression: 'none' }],
    ['LZW with differences', { compression: 'lzw', predictor: 'horizontal' }],
    ['deflate', { compression: 'deflate' }],
    ['packed bits', { compression: 'packbits' }],
    ['tiles', { compression: 'deflate', tile: true, tileWidth: 64, tileHeight: 64 }],
    ['64-bit offsets', { compression: 'none', bigtiff: true }],
  ] as const)('%s', async (_, options) => {
    const found = await opened(new Uint8Array(await source().tiff(options).toBuffer()))
    expect([found.width, found.height, found.depth]).toEqual([size.width, size.height, 8])
    expect(isSame(found.codes, wanted)).toBe(true)
  })

  it('of 16 bits in tiles, and of grey', async () => {
    const raw = { ...size, channels: 4 as const }
    const tiled = await sharp(deep, { raw }).removeAlpha().toColourspace('rgb16').tiff({ compression: 'lzw', tile: true }).toBuffer()
    expect(
      isSame(
        (await opened(new Uint8Array(tiled))).codes,
        [...deep].filter((_, i) => i % 4 < 3),
      ),
    ).toBe(true)
    const grey = await source().toColourspace('b-w').tiff({ compression: 'lzw' }).toBuffer()
    const codes = await sharp(grey).toColourspace('b-w').raw().toBuffer()
    expect(
      isSame(
        (await opened(new Uint8Array(grey))).codes,
        [...codes].flatMap((code) => [code, code, code]),
      ),
    ).toBe(true)
  })

  it('carries its profile along', async () => {
    const file = await source().withIccProfile('p3').tiff({ compression: 'none' }).toBuffer()
    const { notices } = await openPhoto(new Uint8Array(file), 'wide.tif', testCodecs, { space: 'srgb' })
    expect(notices.join()).toMatch(/The colours of “wide.tif” were converted/)
  })

  /** A file of one strip, the higher byte first, put together by hand. */
  function bigEndian(channels: number, bits: 8 | 16, codeAt: (i: number, k: number) => number, next = 0): Uint8Array {
    const [width, height] = [9, 10]
    const bytes = (width * height * channels * bits) / 8
    const entries: [tag: number, type: 3 | 4, values: number[]][] = [
      [256, 3, [width]],
      [257, 3, [height]],
      [258, 3, Array.from({ length: channels }, () => bits)],
      [259, 3, [1]],
      [262, 3, [channels < 3 ? 1 : 2]],
      [273, 4, [8]],
      [277, 3, [channels]],
      [278, 3, [height]],
      [279, 4, [bytes]],
    ]
    const at = 8 + bytes + (bytes % 2)
    const behind = at + 2 + 12 * entries.length + 4
    const file = new Uint8Array(behind + 2 * channels)
    const view = new DataView(file.buffer)
    file.set([0x4d, 0x4d, 0, 42])
    view.setUint32(4, at)
    for (let i = 0; i < width * height; i++) {
      for (let k = 0; k < channels; k++) {
        if (bits === 8) view.setUint8(8 + i * channels + k, codeAt(i, k))
        else view.setUint16(8 + 2 * (i * channels + k), codeAt(i, k))
      }
    }
    view.setUint16(at, entries.length)
    entries.forEach(([tag, type, values], e) => {
      const to = at + 2 + 12 * e
      view.setUint16(to, tag)
      view.setUint16(to + 2, type)
      view.setUint32(to + 4, values.length)
      if (type === 4) view.setUint32(to + 8, values[0]!)
      else if (values.length <= 2) values.forEach((value, k) => view.setUint16(to + 8 + 2 * k, value))
      else {
        view.setUint32(to + 8, behind)
        values.forEach((value, k) => view.setUint16(behind + 2 * k, value))
      }
    })
    view.setUint32(behind - 4, next < 0 ? at : next)
    return file
  }

  it.each([
    ['of 16 bits, the higher byte first', 3, 16, 0],
    ['with five channels: the first three are its colours', 5, 8, 0],
    ['with a single channel', 1, 16, 0],
    ['whose directory points to itself', 3, 8, -1],
  ] as const)('%s', async (_, channels, bits, next) => {
    const codeAt = (i: number, k: number): number => (i * 733 + k * 91) % (bits === 8 ? 256 : 65536)
    const found = await opened(bigEndian(channels, bits, codeAt, next))
    expect([found.width, found.height, found.depth]).toEqual([9, 10, bits])
    expect(
      isSame(
        found.codes,
        Array.from({ length: 270 }, (_v, at) => codeAt(Math.floor(at / 3), channels < 3 ? 0 : at % 3)),
      ),
    ).toBe(true)
  })

  it.each([
    [
      'numbers with a fraction',
      async () =>
        sharp(rgba, { raw: { ...size, channels: 4 } })
          .removeAlpha()
          .toColourspace('scrgb')
          .tiff({ compression: 'none' })
          .toBuffer(),
      /“a.tif” cannot be opened: it has numbers with a fraction/,
    ],
    ['a directory outside the file', async () => bigEndian(3, 8, () => 7).slice(0, 60), /“a.tif” is damaged/],
    [
      'a strip outside the file',
      async () => bigEndian(3, 8, () => 7).map((byte, i, all) => (i === all.length - 6 - 4 - 12 * 4 + 8 ? 9 : byte)),
      /“a.tif” is damaged|“a.tif” cannot/,
    ],
  ] as const)('with %s is refused with words', async (_, make, words) => {
    await expect(openPhoto(new Uint8Array(await make()), 'a.tif', testCodecs)).rejects.toThrow(words)
  })
})
