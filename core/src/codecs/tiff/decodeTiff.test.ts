import { converter, type Rgb } from 'culori'
import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../../test-support/codecs'
import { rgba8Of, samplePixels } from '../../../test-support/pictures'
import { openPhoto } from '../openPhoto'
import { decodeLzw } from './lzw'

// Files that sharp 0.35 (libtiff) writes or reads, or that are put together here from TIFF 6.0.

const size = { width: 83, height: 61 }
const rgba = samplePixels(size.width, size.height)
const picture = (): Sharp => sharp(rgba, { raw: { ...size, channels: 4 } }).removeAlpha()
const bytesOf = async (made: Sharp): Promise<Uint8Array> => new Uint8Array(await made.toBuffer())

async function opened(file: Uint8Array, space?: 'srgb') {
  const { full, notices, wide } = await openPhoto(file, 'a.tif', testCodecs, { space })
  return { width: full.width, height: full.height, rgb: rgba8Of(full).filter((_, i) => i % 4 !== 3), notices, wide }
}

const read = async (file: Uint8Array): Promise<Buffer> =>
  sharp(file, { failOn: 'error' }).rotate().toColourspace('srgb').removeAlpha().raw().toBuffer()

function greatest(a: ArrayLike<number>, b: ArrayLike<number>): number {
  expect(a.length).toBe(b.length)
  let most = 0
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!))
  return most
}

interface Handmade {
  readonly entries: readonly (readonly [tag: number, type: 3 | 4, values: readonly number[]])[]
  readonly data: Uint8Array
}

/** A file of one strip, the lower byte first. */
function handmade({ entries, data }: Handmade): Uint8Array {
  const all = [...entries, [273, 4, [8]] as const, [279, 4, [data.length]] as const].sort(([a], [b]) => a - b)
  const at = 8 + data.length + (data.length % 2)
  let behind = at + 2 + 12 * all.length + 4
  const room = all.reduce((sum, [, type, values]) => sum + (type === 3 ? 2 : 4) * values.length, behind)
  const file = new Uint8Array(room)
  const view = new DataView(file.buffer)
  file.set([0x49, 0x49, 42, 0])
  view.setUint32(4, at, true)
  file.set(data, 8)
  view.setUint16(at, all.length, true)
  all.forEach(([tag, type, values], i) => {
    const entry = at + 2 + 12 * i
    const bytes = type === 3 ? 2 : 4
    view.setUint16(entry, tag, true)
    view.setUint16(entry + 2, type, true)
    view.setUint32(entry + 4, values.length, true)
    const inside = bytes * values.length <= 4
    if (!inside) view.setUint32(entry + 8, behind, true)
    values.forEach((value, k) => {
      const to = (inside ? entry + 8 : behind) + bytes * k
      if (type === 3) view.setUint16(to, value, true)
      else view.setUint32(to, value, true)
    })
    if (!inside) behind += bytes * values.length
  })
  return file
}

const [width, height] = [40, 30]
const codes = Uint8Array.from({ length: width * height }, (_, i) => (i * 7 + Math.floor(i / 40) * 13) % 256)
const shape = [
  [256, 3, [width]],
  [257, 3, [height]],
  [277, 3, [1]],
  [278, 3, [height]],
] as const

/** LZW as writers before TIFF 6.0 had it: the lowest bit first, codes longer one entry later. */
function oldLzw(data: Uint8Array): Uint8Array {
  const out: number[] = []
  let [held, count, bits] = [0, 0, 9]
  const put = (code: number): void => {
    held |= code << count
    count += bits
    for (; count >= 8; count -= 8, held >>>= 8) out.push(held & 255)
  }
  let table = new Map<string, number>()
  let next = 258
  const reset = (): void => {
    table = new Map(Array.from({ length: 256 }, (_, i) => [String.fromCharCode(i), i]))
    next = 258
    bits = 9
  }
  reset()
  put(256)
  let word = ''
  for (const byte of data) {
    const longer = word + String.fromCharCode(byte)
    if (table.has(longer)) {
      word = longer
      continue
    }
    put(table.get(word)!)
    table.set(longer, next++)
    if (next > 1 << bits) bits++
    if (next >= 4094) {
      put(256)
      reset()
    }
    word = String.fromCharCode(byte)
  }
  put(table.get(word)!)
  put(257)
  if (count > 0) out.push(held & 255)
  return Uint8Array.from(out)
}

describe('TIFF files of other writers', () => {
  it.each([
    ['of 8 bits', 8],
    ['of 4 bits', 4],
    ['of 1 bit', 1],
  ] as const)('by a palette %s have its colours', async (_, bits) => {
    const count = 2 ** bits
    const map = [0, 1, 2].flatMap((k) => Array.from({ length: count }, (__, i) => (i * (9000 + 1234 * k) + 777 * k) % 65536))
    const indices = codes.map((code) => code % count)
    const rowBytes = Math.ceil((width * bits) / 8)
    const data = new Uint8Array(rowBytes * height)
    indices.forEach((index, i) => {
      const bit = (i % width) * bits
      data[Math.floor(i / width) * rowBytes + (bit >> 3)]! |= index << (8 - bits - (bit & 7))
    })
    const file = handmade({ entries: [...shape, [258, 3, [bits]], [259, 3, [1]], [262, 3, [3]], [320, 3, map]], data })
    const { rgb } = await opened(file)
    const wanted = [...indices].flatMap((index) => [0, 1, 2].map((k) => map[k * count + index]! / 257))
    expect(greatest(rgb, wanted)).toBeLessThanOrEqual(0.5)
    expect(greatest(rgb, await read(file))).toBeLessThanOrEqual(1)
  })

  it('compressed by LZW of the old bit order are read, and what is broken ends', async () => {
    const long = Uint8Array.from({ length: 20_000 }, (_, i) => (i * i * 31 + (i >> 3)) & 255)
    expect(decodeLzw(oldLzw(long), long.length)).toEqual(long)
    const file = handmade({ entries: [...shape, [258, 3, [8]], [259, 3, [5]], [262, 3, [1]]], data: oldLzw(codes) })
    const { rgb } = await opened(file)
    expect(
      greatest(
        rgb,
        [...codes].flatMap((code) => [code, code, code]),
      ),
    ).toBe(0)
    expect(greatest(rgb, await read(file))).toBe(0)
    // What has no meaning is an error, and does not grow without end.
    expect(() => decodeLzw(Uint8Array.of(0, 3, 255, 255, 255, 255, 255), 1e9)).toThrow('There is no code')
  })

  it.each([
    [
      'grey and white first, packed by fours',
      [
        [258, 3, [4]],
        [259, 3, [1]],
        [262, 3, [0]],
      ] as const,
      4,
    ],
    [
      'with bits turned around',
      [
        [258, 3, [8]],
        [259, 3, [1]],
        [262, 3, [1]],
        [266, 3, [2]],
      ] as const,
      8,
    ],
  ])('%s', async (_, entries, bits) => {
    const rowBytes = (width * bits) / 8
    const data = new Uint8Array(rowBytes * height)
    const values = codes.map((code) => code % 2 ** bits)
    values.forEach((value, i) => {
      const bit = (i % width) * bits
      data[Math.floor(i / width) * rowBytes + (bit >> 3)]! |= value << (8 - bits - (bit & 7))
    })
    const file = handmade({ entries: [...shape, ...entries], data })
    const { rgb } = await opened(file)
    expect(greatest(rgb, await read(file))).toBeLessThanOrEqual(1)
  })

  it.each([
    ['JPEG', { compression: 'jpeg', quality: 95 }],
    ['JPEG in tiles', { compression: 'jpeg', quality: 95, tile: true, tileWidth: 32, tileHeight: 32 }],
    ['deflate with differences in tiles', { compression: 'deflate', predictor: 'horizontal', tile: true, tileWidth: 48, tileHeight: 16 }],
  ] as const)('compressed as %s', async (_, options) => {
    const file = await bytesOf(picture().tiff(options))
    const { rgb } = await opened(file)
    const wanted = await read(file)
    // Decoders of JPEG differ where colours are enlarged.
    expect(rgb.reduce((sum, code, i) => sum + Math.abs(code - wanted[i]!), 0) / rgb.length).toBeLessThan(1.2)
  })

  it('compressed as fax of group 4', async () => {
    const file = await bytesOf(picture().threshold(110).toColourspace('b-w').tiff({ compression: 'ccittfax4', bitdepth: 1 }))
    const { rgb } = await opened(file)
    expect(greatest(rgb, await read(file))).toBe(0)
  })

  it('of inks are converted by their profile, and refused without one', async () => {
    const file = await bytesOf(picture().toColourspace('cmyk').withIccProfile('cmyk').tiff({ compression: 'lzw' }))
    const { rgb, notices } = await opened(file, 'srgb')
    // Little CMS natively, in sharp with another rendering intent.
    const wanted = await sharp(file).toColourspace('srgb').raw().toBuffer()
    expect(rgb.reduce((sum, code, i) => sum + Math.abs(code - wanted[i]!), 0) / rgb.length).toBeLessThan(4)
    expect(notices.join()).toMatch(/were converted from .+ to sRGB/)
    const plain = await bytesOf(picture().toColourspace('cmyk').tiff({ compression: 'none' }))
    const bare = plain.slice()
    // Its tag of the profile taken out.
    const view = new DataView(bare.buffer)
    const directory = view.getUint32(4, true)
    for (let i = 0; i < view.getUint16(directory, true); i++)
      if (view.getUint16(directory + 2 + 12 * i, true) === 34675) view.setUint16(directory + 2 + 12 * i, 65000, true)
    await expect(opened(bare, 'srgb')).rejects.toThrow('“a.tif” is a CMYK picture made for printing')
  })

  // Lab of D50 by culori 4; TIFF 6.0, section 23: L is 0 to 255, a and b have a sign.
  it.each([8, 16] as const)('of CIE Lab with %d bits are converted', async (bits) => {
    const toRgb = converter('rgb')
    const colours = Array.from({ length: width * height }, (_, i) => ({ l: 20 + (i % 61), a: ((i * 7) % 41) - 20, b: ((i * 3) % 61) - 30 }))
    const deep = bits === 16
    const data = new Uint8Array(width * height * 3 * (bits / 8))
    const view = new DataView(data.buffer)
    colours.forEach(({ l, a, b }, i) => {
      const values = deep ? [(l * 65535) / 100, a * 256, b * 256] : [(l * 255) / 100, a, b]
      values.forEach((value, k) =>
        deep ? view.setUint16(2 * (3 * i + k), Math.round(value) & 0xffff, true) : view.setUint8(3 * i + k, Math.round(value) & 0xff),
      )
    })
    const entries = [
      [256, 3, [width]],
      [257, 3, [height]],
      [277, 3, [3]],
      [278, 3, [height]],
      [258, 3, [bits, bits, bits]],
      [259, 3, [1]],
      [262, 3, [8]],
    ] as const
    const { rgb, notices } = await opened(handmade({ entries, data }), 'srgb')
    let compared = 0
    colours.forEach(({ l, a, b }, i) => {
      const wanted = toRgb({ mode: 'lab', l, a, b }) as Rgb
      const channels = [wanted.r, wanted.g, wanted.b]
      if (channels.some((v) => v < 0.02 || v > 0.98)) return
      compared++
      channels.forEach((v, k) => expect(Math.abs(rgb[3 * i + k]! - 255 * v)).toBeLessThan(2.5))
    })
    expect(compared).toBeGreaterThan(600)
    expect(notices.join()).toMatch(/were converted from .* to sRGB/)
  })

  it('of 64-bit offsets are turned upright, and carry their profile', async () => {
    const file = await bytesOf(picture().withMetadata({ orientation: 6 }).withIccProfile('p3').tiff({ compression: 'none', bigtiff: true }))
    const found = await opened(file, 'srgb')
    expect([found.width, found.height]).toEqual([size.height, size.width])
    expect(found.notices.join()).toMatch(/were converted from/)
  })

  it('with several pictures say so', async () => {
    const one = await picture().png().toBuffer()
    const file = await bytesOf(sharp([one, one, one], { join: { animated: true } }).tiff({ compression: 'none' }))
    const { notices, width: wide, height: high } = await opened(file)
    expect([wide, high]).toEqual([size.width, size.height])
    expect(notices).toEqual(['“a.tif” has 3 pictures; the first was opened.'])
  })

  it.each([
    ['zstd', /it is compressed as Zstandard, which cannot be read; save it with LZW or without compression\.$/],
    ['webp', /it is compressed as WebP, which cannot be read/],
    ['jp2k', /it is compressed as JPEG 2000, which cannot be read/],
  ] as const)('compressed as %s are not called damaged', async (compression, words) => {
    const made = await bytesOf(picture().tiff({ compression: compression as 'zstd' })).catch(() => undefined)
    if (made) await expect(opened(made)).rejects.toThrow(words)
  })
})
