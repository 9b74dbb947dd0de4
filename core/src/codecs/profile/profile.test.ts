import { deflateSync } from 'node:zlib'
import { converter, type Rgb } from 'culori'
import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../../test-support/codecs'
import { rgba8Of } from '../../../test-support/pictures'
import { iccProfile, type MatrixSpace } from '../../../test-support/iccProfile'
import { profileOf, type ColourSpace } from '../../colour/colourSpace'
import type { PhotoLevel } from '../../photo/photoData'
import { openPhoto } from '../openPhoto'
import { pngChunk } from '../formats/png/pngChunk'
import { readHeader } from '../header/readHeader'

// Little CMS natively through sharp 0.35; spaces of CSS Color 4 by culori 4.

const [width, height] = [64, 48]
const codes = Uint8Array.from({ length: width * height * 3 }, (_, i) => [(i * 5) % 256, (i * 11) % 256, (i * 3 + 40) % 256][i % 3]!)
const picture = (): Sharp => sharp(codes, { raw: { width, height, channels: 3 } })
const asBytes = async (made: Sharp): Promise<Uint8Array> => new Uint8Array(await made.toBuffer())

const rgbOf = (level: PhotoLevel): Uint8ClampedArray => rgba8Of(level).filter((_, i) => i % 4 !== 3)
const opened = async (bytes: Uint8Array, space: ColourSpace | null = 'srgb') => {
  const { full, notices, wide } = await openPhoto(bytes, 'photo.png', testCodecs, { space: space ?? undefined })
  return { rgb: rgbOf(full), notices, full, wide }
}

/** A PNG with a profile of one's own. */
async function pngWith(profile: Uint8Array, made = picture()): Promise<Uint8Array> {
  const plain = await asBytes(made.png())
  const name = [...'mine'].map((c) => c.charCodeAt(0))
  const chunk = pngChunk('iCCP' as never, new Uint8Array([...name, 0, 0, ...deflateSync(profile)]))
  const behindHead = 8 + 25
  return new Uint8Array([...plain.subarray(0, behindHead), ...chunk, ...plain.subarray(behindHead)])
}

const a98: MatrixSpace = { red: [0.64, 0.33], green: [0.21, 0.71], blue: [0.15, 0.06], gamma: 563 / 256 }

describe('photos with a colour profile', () => {
  it.each(['jpeg', 'png', 'webp', 'avif'] as const)('in %s are converted as Little CMS does it natively', async (format) => {
    const options = { jpeg: { quality: 100, chromaSubsampling: '4:4:4' }, png: {}, webp: { lossless: true }, avif: { lossless: true } }
    const bytes = await asBytes(picture().withIccProfile('p3').toFormat(format, options[format]))
    const { rgb, notices } = await opened(bytes)
    const native = await sharp(bytes).toColourspace('srgb').removeAlpha().raw().toBuffer()
    expect(Math.max(...rgb.map((code, i) => Math.abs(code - native[i]!)))).toBeLessThanOrEqual(2)
    const asItIs = (await opened(bytes, null)).rgb
    expect(rgb.some((code, i) => Math.abs(code - asItIs[i]!) > 8)).toBe(true)
    expect(notices[0]).toMatch(/^The colours of “photo.png” were converted from .+ to sRGB\.$/)
  })

  it('of a wide space are those of CSS Color 4, where they lie within sRGB', async () => {
    const { rgb, notices } = await opened(await pngWith(iccProfile(a98)))
    expect(notices).toEqual(['The colours of “photo.png” were converted from Made for a test to sRGB.'])
    const toRgb = converter('rgb')
    let compared = 0
    for (let i = 0; i < codes.length; i += 3) {
      const [r, g, b] = [0, 1, 2].map((k) => codes[i + k]! / 255) as [number, number, number]
      const wanted = toRgb({ mode: 'a98', r, g, b }) as Rgb
      const channels = [wanted.r, wanted.g, wanted.b]
      if (channels.some((v) => v < 0.02 || v > 0.98)) continue
      compared++
      channels.forEach((v, k) => expect(Math.abs(rgb[i + k]! - 255 * v)).toBeLessThan(1.5))
    }
    expect(compared).toBeGreaterThan(200)
  })

  it('of 16 bits are converted as those of 8, and more finely', async () => {
    const pixels = Array.from({ length: width * height }, (_, i) => [codes[3 * i]!, codes[3 * i + 1]!, codes[3 * i + 2]!, 255]).flat()
    const [shallow, deep] = [new Uint8ClampedArray(pixels), Uint16Array.from(pixels, (code) => code * 257)]
    const [fromShallow, fromDeep] = await Promise.all([shallow, deep].map((data) => testCodecs.toSpace(iccProfile(a98), { data }, 'srgb')))
    if (fromShallow?.is !== 'converted' || fromDeep?.is !== 'converted') throw new Error('They were not converted.')
    // The fast way of Little CMS for codes of 8 bits is within a quarter of a code of 8.
    expect(Math.max(...fromDeep.data.map((code, i) => Math.abs(code - fromShallow.data[i]!)))).toBeLessThan(64)
    // Finer than codes of 8 bits.
    expect(fromShallow.data.filter((code) => code % 257 !== 0).length).toBeGreaterThan(fromShallow.data.length / 3)
  })

  it('of a wide space say whether sRGB lacks their colours, and keep them in Display-P3', async () => {
    // The same codes, as those of Display-P3.
    const inP3 = await pngWith(profileOf('displayP3'))
    expect((await opened(inP3)).wide).toBe(true)
    const kept = await opened(inP3, 'displayP3')
    expect(Buffer.from(kept.rgb).equals(Buffer.from(codes))).toBe(true)
    expect(kept.notices).toEqual(['The colours of “photo.png” are those of Display-P3.'])
    // Greys lie within sRGB whatever the space.
    const grey = codes.map((_, i) => codes[i - (i % 3)]!)
    const calm = await opened(await pngWith(profileOf('displayP3'), sharp(grey, { raw: { width, height, channels: 3 } })))
    expect(calm.wide).toBe(false)
    expect((await opened(await asBytes(picture().png()))).wide).toBe(false)
    // From a wider space still: what Display-P3 has, by culori.
    const { rgb } = await opened(await pngWith(iccProfile(a98)), 'displayP3')
    const toP3 = converter('p3')
    let compared = 0
    for (let i = 0; i < codes.length; i += 3) {
      const [r, g, b] = [0, 1, 2].map((k) => codes[i + k]! / 255) as [number, number, number]
      const wanted = toP3({ mode: 'a98', r, g, b }) as Pick<Rgb, 'r' | 'g' | 'b'>
      const channels = [wanted.r, wanted.g, wanted.b]
      if (channels.some((v) => v < 0.02 || v > 0.98)) continue
      compared++
      channels.forEach((v, k) => expect(Math.abs(rgb[i + k]! - 255 * v)).toBeLessThan(1.5))
    }
    expect(compared).toBeGreaterThan(200)
  })

  it('that are sRGB already, or have none, stay byte for byte; so do all of earlier scenes', async () => {
    for (const made of [picture().png(), picture().withIccProfile('srgb').png()]) {
      const { rgb, notices } = await opened(await asBytes(made))
      expect(Buffer.from(rgb).equals(Buffer.from(codes))).toBe(true)
      expect(notices).toEqual([])
    }
    const { rgb } = await opened(await pngWith(iccProfile(a98)), null)
    expect(Buffer.from(rgb).equals(Buffer.from(codes))).toBe(true)
  })

  // PNG, third edition, 11.3.2: what a file says in numbers goes for a profile that it has not. Spaces of CSS Color 4 by culori.
  it('that stand there in numbers are converted too, the stronger chunk first', async () => {
    const plain = await asBytes(picture().png())
    const numbers = (...values: number[]): Uint8Array => {
      const bytes = new Uint8Array(4 * values.length)
      values.forEach((value, i) => new DataView(bytes.buffer).setUint32(4 * i, Math.round(100_000 * value)))
      return bytes
    }
    const withChunks = (...chunks: readonly (readonly [string, Uint8Array])[]): Uint8Array =>
      new Uint8Array([
        ...plain.subarray(0, 33),
        ...chunks.flatMap(([name, data]) => [...pngChunk(name as never, data)]),
        ...plain.subarray(33),
      ])
    const d65 = [0.3127, 0.329]
    const p3 = numbers(...d65, 0.68, 0.32, 0.265, 0.69, 0.15, 0.06)
    const usual = numbers(...d65, 0.64, 0.33, 0.3, 0.6, 0.15, 0.06)
    const cicp = Uint8Array.of(12, 13, 0, 1)
    const wanted = (await opened(await pngWith(profileOf('displayP3')))).rgb
    for (const file of [withChunks(['cHRM', p3]), withChunks(['cICP', cicp]), withChunks(['cICP', cicp], ['gAMA', numbers(1)])]) {
      const { rgb } = await opened(file)
      expect(Math.max(...rgb.map((code, i) => Math.abs(code - wanted[i]!)))).toBeLessThanOrEqual(1)
    }
    // That of sRGB, however it is said, changes nothing.
    for (const file of [
      withChunks(['gAMA', numbers(0.45455)], ['cHRM', usual]),
      withChunks(['gAMA', numbers(1)], ['sRGB', Uint8Array.of(0)]),
      withChunks(['cICP', Uint8Array.of(1, 13, 0, 1)]),
    ]) {
      const { rgb, notices } = await opened(file)
      expect(Buffer.from(rgb).equals(Buffer.from(codes))).toBe(true)
      expect(notices).toEqual([])
    }
    // Linear light.
    const { rgb } = await opened(withChunks(['gAMA', numbers(1)]))
    const encode = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)
    rgb.forEach((code, i) => expect(Math.abs(code - 255 * encode(codes[i]! / 255))).toBeLessThan(1.6))
    expect((await opened(withChunks(['cICP', Uint8Array.of(9, 16, 0, 1)]))).notices.join()).toContain(
      'is made for displays far brighter than white',
    )
  })

  // ISO/IEC 14496-12, 12.1.5, with the numbers of ITU-T H.273; Display-P3 of CSS Color 4 by culori.
  it('that stand in an AVIF in numbers are converted, and that of sRGB changes nothing', async () => {
    const file = await asBytes(picture().avif({ lossless: true, effort: 0 }))
    const at = Buffer.from(file).indexOf('nclx')
    const saying = (primaries: number): Uint8Array => {
      const bytes = file.slice()
      new DataView(bytes.buffer).setUint16(at + 4, primaries)
      return bytes
    }
    expect(at).toBeGreaterThan(0)
    const { rgb: bare } = await opened(file, null)
    const usual = await opened(saying(1))
    expect(usual.notices).toEqual([])
    expect(Buffer.from(usual.rgb).equals(Buffer.from(bare))).toBe(true)
    const { rgb } = await opened(saying(12))
    const toSrgb = converter('rgb')
    let compared = 0
    for (let i = 0; i < bare.length; i += 3) {
      const [r, g, b] = [0, 1, 2].map((k) => bare[i + k]! / 255) as [number, number, number]
      const wanted = toSrgb({ mode: 'p3', r, g, b }) as Rgb
      const channels = [wanted.r, wanted.g, wanted.b]
      if (channels.some((v) => v < 0.02 || v > 0.98)) continue
      compared++
      channels.forEach((v, k) => expect(Math.abs(rgb[i + k]! - 255 * v)).toBeLessThan(1.5))
    }
    expect(compared).toBeGreaterThan(200)
  })

  it('that are sRGB in a JPEG change nothing, and are not taken for wide', async () => {
    const bright = codes.map((code, i) => (i % 3 === Math.floor(i / 3) % 3 ? 255 : code % 9))
    const made = sharp(bright, { raw: { width, height, channels: 3 } })
    for (const profile of [undefined, 'srgb'] as const) {
      const bytes = await asBytes(
        (profile ? made.clone().withIccProfile(profile) : made.clone()).jpeg({ quality: 100, chromaSubsampling: '4:4:4' }),
      )
      const [found, bare] = [await opened(bytes), await opened(bytes, null)]
      expect(found.wide).toBe(false)
      expect(found.notices).toEqual([])
      expect(Buffer.from(found.rgb).equals(Buffer.from(bare.rgb))).toBe(true)
    }
  })

  it('of grey go through its gamma', async () => {
    const grey = await asBytes(picture().greyscale().toColourspace('b-w').png())
    const before = (await opened(grey)).rgb
    const chunk = pngChunk('iCCP' as never, new Uint8Array([109, 0, 0, ...deflateSync(iccProfile({ gamma: 1.8 }))]))
    const { rgb } = await opened(new Uint8Array([...grey.subarray(0, 33), ...chunk, ...grey.subarray(33)]))
    const encode = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)
    before.forEach((code, i) => expect(Math.abs(rgb[i]! - 255 * encode((code / 255) ** 1.8))).toBeLessThan(1.6))
  })

  it.each([
    ['cut short', () => iccProfile(a98).subarray(0, 200)],
    ['noise', () => Uint8Array.from({ length: 600 }, (_, i) => (i * 7919) % 256)],
    [
      'of another class',
      () =>
        Uint8Array.from(iccProfile(a98), (code, i) => ('CMYK'.charCodeAt(i - 16) && i >= 16 && i < 20 ? 'CMYK'.charCodeAt(i - 16) : code)),
    ],
  ])('that is %s is not used, and that is said', async (_, profile) => {
    const { rgb, notices } = await opened(await pngWith(profile()))
    expect(Buffer.from(rgb).equals(Buffer.from(codes))).toBe(true)
    expect(notices).toEqual(['“photo.png” has a colour profile that cannot be used; its colours were taken as sRGB.'])
  })

  it('that would be huge is left alone', async () => {
    const bytes = await pngWith(new Uint8Array(40e6))
    expect(readHeader(bytes, 'png').profile).toBeUndefined()
    // The decoder refuses it too.
    await expect(opened(bytes)).rejects.toThrow('“photo.png” is damaged')
  })
})
