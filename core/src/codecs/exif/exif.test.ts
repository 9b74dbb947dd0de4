import exifr from 'exifr'
import fc from 'fast-check'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { fileOf } from '../../../test-support/codecs'
import { samplePixels } from '../../../test-support/pictures'
import { fileFormats } from '../formats/registry'
import { exifFor } from './exifFor'
import { exifOf } from '../header/readHeader'

// Written by sharp 0.35 (libexif), read by exifr 7.

const size = { width: 64, height: 48 }
const camera = {
  IFD0: { Make: 'Welkinar', Model: 'Test', Artist: 'Somebody', Software: 'Another program' },
  IFD2: { DateTimeOriginal: '2026:11:27 10:00:00', FNumber: '28/10', PixelXDimension: '640', PixelYDimension: '480' },
  IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 3230/100', GPSLongitudeRef: 'W', GPSLongitude: '0/1 7/1 3216/100' },
}
const picture = () => sharp(samplePixels(640, 480), { raw: { width: 640, height: 480, channels: 4 } }).removeAlpha()
const sources = {
  JPEG: () => picture().withExif(camera).jpeg().toBuffer(),
  PNG: () => picture().withExif(camera).png().toBuffer(),
  WebP: () => picture().withExif(camera).webp().toBuffer(),
}

async function written(format: 'png' | 'jpeg', exif: Uint8Array<ArrayBuffer>): Promise<Buffer> {
  const options = { format, quality: 90, depth: 8 } as const
  const { join } = fileFormats[format]
  const bands: Parameters<typeof join>[0][number][] = []
  await fileOf(samplePixels(size.width, size.height), size, options, undefined, (band) => bands.push(band))
  return Buffer.from(await (await join(bands, size, { depth: 8, exif })).arrayBuffer())
}

describe('what the camera said', () => {
  it.each(Object.entries(sources))(
    'is taken from a %s and stands in the file; place and small picture only as asked for',
    async (_, make) => {
      const block = exifOf(new Uint8Array(await make()))
      expect(block).toBeDefined()
      for (const format of ['png', 'jpeg'] as const) {
        for (const keepsPlace of [true, false]) {
          const file = await written(format, exifFor(block, size, keepsPlace))
          const found = await exifr.parse(file, { gps: true, translateValues: false })
          expect(found).toMatchObject({
            Make: 'Welkinar',
            Artist: 'Somebody',
            Software: 'Welkinar',
            FNumber: 2.8,
            ExifImageWidth: 64,
            ExifImageHeight: 48,
          })
          expect((await sharp(file).metadata()).orientation).toBe(1)
          if (keepsPlace) expect(found.latitude).toBeCloseTo(51.508972, 4)
          else expect(found.latitude).toBeUndefined()
          // Nor is it there for somebody who looks at the bytes.
          const place = Uint8Array.of(...[51, 0, 0, 0, 1, 0, 0, 0, 30, 0, 0, 0, 1, 0, 0, 0])
          expect(file.includes(Buffer.from(place))).toBe(keepsPlace)
        }
      }
    },
  )

  it('of a photo that stands on its side is turned with it', async () => {
    const block = exifOf(new Uint8Array(await picture().withMetadata({ orientation: 6 }).jpeg().toBuffer()))
    expect((await sharp(await written('jpeg', exifFor(block, size, true))).metadata()).orientation).toBe(1)
  })

  // CIPA DC-008, 4.6.6: 1 is sRGB, 65535 any other.
  it('says which space the codes are of', async () => {
    const block = exifOf(
      new Uint8Array(
        await picture()
          .withExif({ IFD0: {}, IFD2: { ColorSpace: '2' } })
          .jpeg()
          .toBuffer(),
      ),
    )
    for (const [space, code] of [
      ['srgb', 1],
      ['displayP3', 65535],
    ] as const) {
      const file = await written('jpeg', exifFor(block, size, true, space))
      expect(await exifr.parse(file, { translateValues: false })).toMatchObject({ ColorSpace: code })
    }
  })

  it('without any there is only what wrote the file', async () => {
    const file = await written('png', exifFor(undefined, size, true))
    expect(await exifr.parse(file)).toMatchObject({ Software: 'Welkinar' })
  })

  it('a block whose directories point to themselves, or anywhere, does no harm', async () => {
    const block = exifOf(new Uint8Array(await sources.JPEG()))!
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(block.length - 1), fc.nat(255)), { minLength: 1, maxLength: 40 }), (changes) => {
        const broken = block.slice()
        for (const [at, value] of changes) broken[at] = value
        const made = exifFor(broken, size, false)
        expect(made.length).toBeLessThan(block.length + 12 * 600)
      }),
    )
    const looped = block.slice()
    const view = new DataView(looped.buffer)
    const isLittle = looped[0] === 0x49
    const first = view.getUint32(4, isLittle)
    view.setUint32(first + 2 + 12 * view.getUint16(first, isLittle), first, isLittle)
    expect(await exifr.parse(await written('jpeg', exifFor(looped, size, true)))).toMatchObject({ Make: 'Welkinar', Software: 'Welkinar' })
  })
})
