import sharp, { type Sharp } from 'sharp'
import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../test-support/codecs'
import { rgba8Of, samplePixels } from '../../test-support/pictures'
import { sampled } from '../../test-support/sampled'
import { UserProblem } from '../model/userProblem'
import { openPhoto } from './openPhoto'

// Written and read by sharp 0.35 (libjpeg-turbo, libspng, libtiff, libwebp, libheif with aom).

/** No block or tile divides it. */
const size = { width: 83, height: 61 }
const rgba = samplePixels(size.width, size.height)
const picture = (): Sharp => sharp(rgba, { raw: { ...size, channels: 4 } }).removeAlpha()
const grey = (): Sharp => picture().toColourspace('b-w')
const clear = (): Sharp => sharp(rgba, { raw: { ...size, channels: 4 } }).ensureAlpha(0.5)
const deep = (): Sharp =>
  sharp(
    Uint16Array.from({ length: size.width * size.height * 3 }, (_, i) => (rgba[i + Math.floor(i / 3)]! * 257 + i * 7) % 65536),
    { raw: { ...size, channels: 3 } },
  ).toColourspace('rgb16')
const lines = (): Sharp => picture().threshold(110).toColourspace('b-w')
const tiles = { tile: true, tileWidth: 32, tileHeight: 16 } as const

/** How it is written, and by how many codes of 8 bits another reader may differ in the mean: decoders enlarge colours in different ways. */
type Form = readonly [name: string, make: () => Sharp, mean: number]

const jpeg: readonly Form[] = [
  ['JPEG 4:2:0', () => picture().jpeg({ quality: 80 }), 1.2],
  ['JPEG 4:4:4', () => picture().jpeg({ quality: 80, chromaSubsampling: '4:4:4' }), 0.3],
  ['progressive JPEG', () => picture().jpeg({ quality: 70, progressive: true }), 1.2],
  ['progressive JPEG 4:4:4', () => picture().jpeg({ quality: 95, progressive: true, chromaSubsampling: '4:4:4' }), 0.3],
  ['JPEG of low quality', () => picture().jpeg({ quality: 5 }), 1.5],
  ['JPEG of full quality', () => picture().jpeg({ quality: 100, chromaSubsampling: '4:4:4' }), 0.3],
  ['JPEG with optimised scans', () => picture().jpeg({ mozjpeg: true, quality: 75 }), 1.2],
  ['JPEG of grey', () => grey().jpeg({ quality: 85 }), 0.3],
  ['progressive JPEG of grey', () => grey().jpeg({ quality: 85, progressive: true }), 0.3],
  ['JPEG without optimised coding', () => picture().jpeg({ optimiseCoding: false, chromaSubsampling: '4:4:4' }), 0.3],
  ['JPEG with a table of its own', () => picture().jpeg({ quantisationTable: 3, chromaSubsampling: '4:4:4' }), 0.3],
  ['JPEG with all metadata', () => picture().withMetadata({ density: 300 }).jpeg({ chromaSubsampling: '4:4:4' }), 0.3],
]
const png: readonly Form[] = [
  ['PNG', () => picture().png(), 0],
  ['interlaced PNG', () => picture().png({ progressive: true }), 0],
  ['PNG without compression', () => picture().png({ compressionLevel: 0 }), 0],
  ['PNG with filters', () => picture().png({ adaptiveFiltering: true }), 0],
  ['PNG of 16 bits', () => deep().png(), 0.5],
  ['interlaced PNG of 16 bits', () => deep().png({ progressive: true }), 0.5],
  ['PNG of grey', () => grey().png(), 0],
  ['interlaced PNG of grey', () => grey().png({ progressive: true }), 0],
  ['PNG of grey in 16 bits', () => deep().toColourspace('grey16').png(), 0.5],
  ['PNG by a palette', () => picture().png({ palette: true }), 0],
  ['PNG by a palette of 16', () => picture().png({ palette: true, colours: 16 }), 0],
  ['PNG by a palette of 4', () => picture().png({ palette: true, colours: 4 }), 0],
  ['PNG by a palette of 2', () => picture().png({ palette: true, colours: 2 }), 0],
  ['interlaced PNG by a palette', () => picture().png({ palette: true, progressive: true }), 0],
  ['PNG with cover', () => clear().png(), 0.5],
  ['PNG of grey with cover', () => grey().ensureAlpha(0.4).png(), 0.5],
]
const webp: readonly Form[] = [
  ['WebP', () => picture().webp({ quality: 80 }), 1.2],
  ['WebP of low quality', () => picture().webp({ quality: 1 }), 1.2],
  ['WebP with smoother colours', () => picture().webp({ quality: 80, smartSubsample: true }), 1.2],
  ['WebP without loss', () => picture().webp({ lossless: true }), 0],
  ['WebP nearly without loss', () => picture().webp({ nearLossless: true, quality: 60 }), 0],
  ['WebP of a drawing', () => picture().webp({ preset: 'drawing' }), 1.2],
  ['WebP with cover', () => clear().webp({ lossless: true }), 0.5],
  ['WebP with loss and cover', () => clear().webp({ quality: 70, alphaQuality: 50 }), 1.5],
]
const avif: readonly Form[] = [
  ['AVIF 4:4:4', () => picture().avif({ quality: 80 }), 0.5],
  ['AVIF 4:2:0', () => picture().avif({ quality: 60, chromaSubsampling: '4:2:0' }), 1.5],
  ['AVIF of 10 bits', () => picture().avif({ quality: 80, bitdepth: 10 }), 0.7],
  ['AVIF of 12 bits', () => picture().avif({ quality: 80, bitdepth: 12 }), 0.7],
  ['AVIF without loss', () => picture().avif({ lossless: true }), 0.5],
  ['AVIF of grey', () => grey().avif({ quality: 80 }), 0.5],
  ['AVIF with cover', () => clear().avif({ quality: 80 }), 0.7],
]
const tiff: readonly Form[] = [
  ['TIFF', () => picture().tiff({ compression: 'none' }), 0],
  ['TIFF in tiles', () => picture().tiff({ compression: 'none', ...tiles }), 0],
  ['TIFF with LZW', () => picture().tiff({ compression: 'lzw', predictor: 'none' }), 0],
  ['TIFF with LZW and differences', () => picture().tiff({ compression: 'lzw', predictor: 'horizontal' }), 0],
  ['TIFF with LZW in tiles', () => picture().tiff({ compression: 'lzw', ...tiles }), 0],
  ['TIFF with deflate', () => picture().tiff({ compression: 'deflate', predictor: 'none' }), 0],
  ['TIFF with deflate and differences in tiles', () => picture().tiff({ compression: 'deflate', predictor: 'horizontal', ...tiles }), 0],
  ['TIFF with PackBits', () => picture().tiff({ compression: 'packbits' }), 0],
  ['TIFF with JPEG', () => picture().tiff({ compression: 'jpeg', quality: 95 }), 1.2],
  ['TIFF with JPEG in tiles', () => picture().tiff({ compression: 'jpeg', quality: 95, ...tiles }), 1.2],
  ['TIFF of 16 bits', () => deep().tiff({ compression: 'none' }), 0.5],
  ['TIFF of 16 bits with LZW and differences', () => deep().tiff({ compression: 'lzw', predictor: 'horizontal' }), 0.5],
  ['TIFF of 16 bits with deflate in tiles', () => deep().tiff({ compression: 'deflate', ...tiles }), 0.5],
  ['TIFF of grey', () => grey().tiff({ compression: 'lzw' }), 0],
  ['TIFF of 4 bits', () => grey().tiff({ bitdepth: 4, compression: 'none' }), 0.5],
  ['TIFF of 2 bits', () => grey().tiff({ bitdepth: 2, compression: 'lzw', predictor: 'none' }), 0.5],
  ['TIFF of 1 bit', () => lines().tiff({ bitdepth: 1, compression: 'none' }), 0],
  ['TIFF of 1 bit with fax of group 4', () => lines().tiff({ bitdepth: 1, compression: 'ccittfax4' }), 0],
  ['TIFF with white first', () => lines().tiff({ bitdepth: 1, miniswhite: true, compression: 'none' }), 0],
  ['TIFF with cover', () => clear().tiff({ compression: 'lzw' }), 0.5],
  ['BigTIFF', () => picture().tiff({ bigtiff: true, compression: 'deflate' }), 0],
  ['TIFF with smaller pictures behind', () => picture().tiff({ pyramid: true, ...tiles, compression: 'deflate' }), 0],
]
const forms: readonly Form[] = [...jpeg, ...png, ...webp, ...avif, ...tiff]

describe('forms that another library writes', () => {
  it.each([...sampled(forms)])('%s', async (name, make, mean) => {
    const file = await make().toBuffer()
    const { full } = await openPhoto(new Uint8Array(file), 'a.photo', testCodecs)
    // A picture of 16 bits in 8, rounded as ours is shown.
    const wanted = await sharp(file, { failOn: 'warning' }).flatten({ background: '#fff' }).toColourspace('srgb').raw().toBuffer()
    const found = rgba8Of(full).filter((_, i) => i % 4 !== 3)
    expect([full.width, full.height, found.length]).toEqual([size.width, size.height, wanted.length])
    let [sum, most] = [0, 0]
    found.forEach((code, i) => {
      const far = Math.abs(code - wanted[i]!)
      sum += far
      most = Math.max(most, far)
    })
    expect(sum / found.length, name).toBeLessThanOrEqual(mean)
    if (mean <= 0.5) expect(most, name).toBeLessThanOrEqual(mean === 0 ? 0 : 3)
  })

  it('a TIFF with WebP is said not to be read, and never to be damaged', async () => {
    const file = await picture().tiff({ compression: 'webp' }).toBuffer()
    const problem: unknown = await openPhoto(new Uint8Array(file), 'a.tif', testCodecs).catch((error: unknown) => error)
    expect(problem).toBeInstanceOf(UserProblem)
    expect(String(problem)).not.toContain('damaged')
  })
})
