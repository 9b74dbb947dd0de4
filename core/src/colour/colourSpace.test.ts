import sharp from 'sharp'
import { converter, type Rgb } from 'culori'
import { describe, expect, it } from 'vitest'
import { rgba8Of } from '../../test-support/pictures'
import { fileOf, testCodecs } from '../../test-support/codecs'
import { samplePixels } from '../../test-support/pictures'
import { exportFormats, type ExportFormat } from '../codecs/formats/registry'
import { openPhoto } from '../codecs/openPhoto'
import { allColourSpaces, colourSpaces, type ColourSpace } from './colourSpace'

// Little CMS natively through sharp 0.35; Display-P3 of CSS Color 4 by culori 4.

const size = { width: 96, height: 64 }
const toP3 = converter('p3')
const toSrgb = converter('rgb')
const lossless: readonly ExportFormat[] = ['png', 'tiff']

/** A picture in the codes of a space, and the codes of sRGB of the same colours. */
function codesIn(space: ColourSpace): { readonly codes: Uint8ClampedArray<ArrayBuffer>; readonly srgb: Uint8Array } {
  const codes = new Uint8ClampedArray(samplePixels(size.width, size.height))
  const srgb = new Uint8Array(codes)
  if (space === 'srgb') return { codes, srgb }
  for (let i = 0; i < codes.length; i += 4) {
    const [r, g, b] = [0, 1, 2].map((k) => codes[i + k]! / 255) as [number, number, number]
    const wide = toP3({ mode: 'rgb', r, g, b }) as Pick<Rgb, 'r' | 'g' | 'b'>
    ;[wide.r, wide.g, wide.b].forEach((value, k) => (codes[i + k] = Math.round(255 * value)))
    // What rounding to codes of the wider space left.
    const [pr, pg, pb] = [0, 1, 2].map((k) => codes[i + k]! / 255) as [number, number, number]
    const back = toSrgb({ mode: 'p3', r: pr, g: pg, b: pb }) as Rgb
    ;[back.r, back.g, back.b].forEach((value, k) => (srgb[i + k] = Math.round(255 * Math.max(0, Math.min(1, value)))))
  }
  return { codes, srgb }
}

describe('colour spaces of files', () => {
  const cases = exportFormats.flatMap((format) => allColourSpaces.map((space) => [format, space] as const))

  it.each(cases)('a %s in %s is read in its colours by others', async (format, space) => {
    const { codes, srgb } = codesIn(space)
    const file = await fileOf(codes, size, { format, quality: 100, depth: 8, space })
    const read = await sharp(file, { failOn: 'warning' }).toColourspace('srgb').ensureAlpha().raw().toBuffer()
    const offs = read.map((code, i) => Math.abs(code - srgb[i]!))
    if (lossless.includes(format)) expect(Math.max(...offs)).toBeLessThanOrEqual(2)
    // Its codes are those of the wider space: taken for sRGB they are far off.
    else expect(offs.reduce((sum, off) => sum + off, 0) / offs.length).toBeLessThan(2)
    const { icc } = await sharp(file).metadata()
    expect(icc !== undefined).toBe(!(format === 'png' && space === 'srgb'))
  })

  it.each(cases)('a %s in %s opens here as it was', async (format, space) => {
    const { codes, srgb } = codesIn(space)
    const file = await fileOf(codes, size, { format, quality: 100, depth: 8, space })
    const { full, notices } = await openPhoto(new Uint8Array(file), `a.${format}`, testCodecs, { space: 'srgb' })
    const offs = rgba8Of(full).map((code, i) => Math.abs(code - srgb[i]!))
    if (lossless.includes(format)) expect(Math.max(...offs)).toBeLessThanOrEqual(2)
    else expect(offs.reduce((sum, off) => sum + off, 0) / offs.length).toBeLessThan(2)
    expect(notices).toEqual(said(format, space))
  })

  // sharp takes Display-P3 for its own working space at 16 bits, so it cannot tell here; Little CMS as WebAssembly.
  it.each(lossless.map((format) => [format]))('a %s of 16 bits in displayP3 opens here as it was', async (format) => {
    const { codes, srgb } = codesIn('displayP3')
    const deep = new Uint8ClampedArray(Uint16Array.from(codes, (code) => 257 * code).buffer)
    const file = await fileOf(deep, size, { format, quality: 100, depth: 16, space: 'displayP3' })
    const { full, notices } = await openPhoto(new Uint8Array(file), `a.${format}`, testCodecs, { space: 'srgb' })
    const found = new Uint16Array(full.pixels)
    // Channel by channel.
    const wanted = [0, 1, 2].flatMap((channel) => [...srgb.filter((_, i) => i % 4 === channel)])
    expect(found).toHaveLength(wanted.length)
    expect(found.every((code, i) => Math.abs(code / 257 - wanted[i]!) < 1)).toBe(true)
    expect(notices).toEqual(said(format, 'displayP3'))
  })
})

/** What is said when a file is opened. */
function said(format: ExportFormat, space: ColourSpace): string[] {
  return space === 'srgb' ? [] : [`The colours of “a.${format}” were converted from ${colourSpaces[space].label} to sRGB.`]
}
