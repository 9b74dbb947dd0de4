import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../test-support/codecs'
import { samplePixels } from '../../test-support/pictures'
import { openPhoto, TooLargeProblem } from './openPhoto'

const [width, height] = [96, 64]
const rgba = samplePixels(width, height)
const picture = () => sharp(Buffer.from(rgba), { raw: { width, height, channels: 4 } }).removeAlpha()
const bytesOf = async (made: Sharp): Promise<Uint8Array> => new Uint8Array(await made.toBuffer())

async function opened(bytes: Uint8Array, name = 'photo.jpg') {
  const { full, notices } = await openPhoto(bytes, name, testCodecs)
  return { ...full, notices, codes: full.format === 'rgba8' ? new Uint8Array(full.pixels) : new Uint16Array(full.pixels) }
}

/** Greatest difference in codes between our RGBA and what sharp reads. */
async function differenceFromSharp(bytes: Uint8Array, codes: Uint8Array | Uint16Array): Promise<number> {
  const { data } = await sharp(bytes).rotate().ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return Math.max(...data.map((v, i) => Math.abs(v - codes[i]!)))
}

// Written and read by sharp 0.35 (published library).
describe('opening photos', () => {
  it.each([
    ['png', () => bytesOf(picture().png()), 0],
    ['jpg', () => bytesOf(picture().jpeg({ quality: 95 })), 3],
    ['jpg', () => bytesOf(picture().jpeg({ quality: 80, progressive: true })), 3],
    ['webp', () => bytesOf(picture().webp({ lossless: true })), 0],
    ['webp', () => bytesOf(picture().webp({ quality: 90 })), 3],
    ['avif', () => bytesOf(picture().avif({ quality: 90, chromaSubsampling: '4:4:4' })), 3],
  ] as const)('reads %s as sharp does', async (ending, make, tolerance) => {
    const bytes = await make()
    const { codes, width: w, height: h } = await opened(bytes, `photo.${ending}`)
    expect([w, h]).toEqual([width, height])
    expect(await differenceFromSharp(bytes, codes)).toBeLessThanOrEqual(tolerance)
  })

  it('lays transparent parts of a 16-bit PNG on white, and keeps nothing of it in the memory of the codec', async () => {
    const side = 400
    const clear = new Uint16Array(side * side * 4).fill(20_000)
    for (let i = 3; i < clear.length; i += 8) clear[i] = 0
    const bytes = await bytesOf(
      sharp(clear, { raw: { width: side, height: side, channels: 4 } })
        .toColourspace('rgb16')
        .png(),
    )
    const { codes, notices } = await opened(bytes, 'deep.png')
    expect(notices).toEqual([expect.stringContaining('transparent')])
    // Every other pixel is clear, the rest 20000 of 65535 opaque.
    expect([...codes.slice(0, 2)]).toEqual([65535, Math.round((20_000 * 20_000 + 65_535 * 45_535) / 65_535)])
    const inCodec = () => process.memoryUsage().external - process.memoryUsage().arrayBuffers
    const before = inCodec()
    for (let i = 0; i < 40; i++) await opened(bytes, 'deep.png')
    // Each is 1.3 MB in the codec.
    expect(inCodec()).toBeLessThan(before + 10e6)
  })

  it('reads 16-bit PNG without loss', async () => {
    const deep = Uint16Array.from({ length: width * height * 3 }, (_, i) => (i * 7919) % 65536)
    const bytes = await bytesOf(
      sharp(deep, { raw: { width, height, channels: 3 } })
        .toColourspace('rgb16')
        .png(),
    )
    const { codes, format } = await opened(bytes, 'deep.png')
    expect(format).toBe('rgb16')
    for (const [x, y, c] of [
      [0, 0, 0],
      [5, 9, 1],
      [95, 63, 2],
    ] as const)
      expect(codes[c * width * height + y * width + x]).toBe(deep[(y * width + x) * 3 + c])
  })

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('applies EXIF orientation %s', async (orientation) => {
    const bytes = await bytesOf(picture().withMetadata({ orientation }).jpeg({ quality: 95 }))
    const found = await opened(bytes)
    expect([found.width, found.height]).toEqual(orientation >= 5 ? [height, width] : [width, height])
    expect(await differenceFromSharp(bytes, found.codes)).toBeLessThanOrEqual(3)
  })

  it('applies the orientation of a WebP', async () => {
    const bytes = await bytesOf(picture().withMetadata({ orientation: 6 }).webp({ lossless: true }))
    const found = await opened(bytes, 'photo.webp')
    expect([found.width, found.height]).toEqual([height, width])
    expect(await differenceFromSharp(bytes, found.codes)).toBe(0)
  })

  it('lays a transparent PNG on white and says so', async () => {
    const half = Buffer.from([0, 0, 0, 0, 255, 0, 0, 255, 0, 0, 255, 128, 9, 9, 9, 255])
    const tile = await sharp(half, { raw: { width: 2, height: 2, channels: 4 } })
      .resize(16, 16, { kernel: 'nearest' })
      .png()
      .toBuffer()
    const { codes, notices } = await opened(new Uint8Array(tile), 'cut-out.png')
    expect([...codes.slice(0, 4)]).toEqual([255, 255, 255, 255])
    expect([...codes.slice(16 * 15 * 4, 16 * 15 * 4 + 3)]).toEqual([127, 127, 255])
    expect(notices.join()).toMatch(/“cut-out.png” has transparent parts/)
  })
})

describe('files that cannot be opened', () => {
  const jpeg = () => bytesOf(picture().jpeg())
  const text = (words: string) => new TextEncoder().encode(words)
  const gif = () => bytesOf(picture().gif())
  const cases: readonly (readonly [string, () => Promise<Uint8Array> | Uint8Array, RegExp])[] = [
    ['empty.jpg', () => new Uint8Array(), /“empty.jpg” cannot be opened: it is empty/],
    ['notes.jpg', () => text('Dear diary, it rained.'), /“notes.jpg” cannot be opened: it is not a picture/],
    ['short.jpg', async () => (await jpeg()).slice(0, 900), /“short.jpg” is damaged: the file is cut short/],
    ['short.png', async () => (await bytesOf(picture().png())).slice(0, 400), /“short.png” is damaged/],
    [
      'odd.png',
      async () => (await bytesOf(picture().png())).map((byte, at) => (at === 60 ? byte ^ 1 : byte)),
      /“odd.png” is damaged: its checksums do not match/,
    ],
    ['broken.webp', async () => (await bytesOf(picture().webp())).fill(7, 30), /“broken.webp” is damaged/],
    ['dot.png', () => bytesOf(picture().resize(1, 1).png()), /“dot.png” is too small: it is 1 × 1 px/],
    ['print.jpg', () => bytesOf(picture().toColourspace('cmyk').jpeg()), /“print.jpg” is a CMYK picture/],
    ['moving.gif', gif, /“moving.gif” cannot be opened: it is a GIF/],
    ['shot.nef', () => text('MM\0*xxxxxxxxxxxxxxxxxxxx'), /“shot.nef” cannot be opened: it is a raw file that cannot be read/],
    ['shot.cr3', () => text('\0\0\0\x18ftypcrx \0\0\0\x01crx isom'), /raw file that cannot be read/],
    ['short.tif', async () => (await bytesOf(picture().tiff({ compression: 'none' }))).slice(0, 300), /“short.tif” is damaged/],
    [
      'print.tif',
      () => bytesOf(picture().toColourspace('cmyk').tiff()),
      /“print.tif” cannot be opened: it is a JPEG of inks made for printing/,
    ],
    [
      'deep.jpg',
      async () => (await bytesOf(picture().jpeg())).map((byte, i, all) => (all[i - 4] === 0xff && all[i - 3] === 0xc0 ? 12 : byte)),
      /“deep.jpg” is a JPEG of 12 bits a channel, which cannot be read here/,
    ],
    [
      'arithmetic.jpg',
      async () => (await bytesOf(picture().jpeg())).map((byte, i, all) => (all[i - 1] === 0xff && byte === 0xc0 ? 0xc9 : byte)),
      /“arithmetic.jpg” is a JPEG with arithmetic coding, which cannot be read here/,
    ],
    ['phone.heic', () => text('\0\0\0\x18ftypheic\0\0\0\0mif1heic'), /“phone.heic” is damaged/],
  ]

  it.each(cases)('%s gets a message with its name and the reason', async (name, make, message) => {
    await expect(openPhoto(await make(), name, testCodecs)).rejects.toThrow(message)
  })

  it('a header that promises nothing but zero pixels is refused', async () => {
    const bytes = await bytesOf(picture().png())
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(16, 0)
    await expect(openPhoto(bytes, 'zero.png', testCodecs)).rejects.toThrow(/“zero.png”/)
  })

  it.each([
    ['half of it zero', (bytes: Uint8Array) => bytes.map((byte, i) => (i > bytes.length / 2 && i < bytes.length - 2 ? 0 : byte))],
    ['an end put behind a half', (bytes: Uint8Array) => Uint8Array.from([...bytes.subarray(0, bytes.length / 2), 0xff, 0xd9])],
    ['a gap', (bytes: Uint8Array) => bytes.map((byte, i) => (i > bytes.length / 2 && i < bytes.length / 2 + 2000 ? 0 : byte))],
  ])('a JPEG with %s opens, and it is said that it is damaged', async (_, spoil) => {
    const grain = { type: 'gaussian' as const, mean: 120, sigma: 40 }
    for (const options of [{}, { progressive: true }, { chromaSubsampling: '4:4:4' }]) {
      const made = sharp({ create: { width: 320, height: 240, channels: 3, background: '#123', noise: grain } })
      const whole = await bytesOf(made.jpeg(options))
      expect((await opened(whole, 'whole.jpg')).notices).toEqual([])
      const { notices } = await opened(spoil(whole), 'spoilt.jpg')
      expect(notices.join()).toContain('“spoilt.jpg” is damaged in places: what could be read of it is shown.')
    }
  })

  it('an animated WebP is refused, an animated PNG opens with its first picture', async () => {
    const frames = sharp(Buffer.from(rgba), { raw: { width, height, channels: 4, pageHeight: height / 2 } })
    await expect(openPhoto(await bytesOf(frames.webp({ loop: 0, delay: [90, 90] })), 'moving.webp', testCodecs)).rejects.toThrow(
      /“moving.webp” is an animation/,
    )
    const png = await bytesOf(picture().png())
    const control = new Uint8Array([0, 0, 0, 8, 0x61, 0x63, 0x54, 0x4c, 0, 0, 0, 1, 0, 0, 0, 0, 0xb9, 0x3d, 0xd9, 0x7f])
    const apng = new Uint8Array([...png.slice(0, 33), ...control, ...png.slice(33)])
    expect((await opened(apng, 'moving.png')).notices.join()).toMatch(/“moving.png” is an animation; its first picture/)
  })

  it('a photo beyond 60 megapixels is refused with its size, and decoded when that is allowed', async () => {
    const large = await bytesOf(sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#345' } }).png())
    await expect(openPhoto(large, 'huge.png', testCodecs)).rejects.toThrow(TooLargeProblem)
    await expect(openPhoto(large, 'huge.png', testCodecs)).rejects.toThrow('“huge.png” has 63 megapixels (9000 × 7000)')
    expect((await openPhoto(large, 'huge.png', testCodecs, { allowLarge: true })).full.width).toBe(9000)
  })
})
