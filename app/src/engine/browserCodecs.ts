import { jpegWithoutMetadata, sharedBuffer, type Codecs, type DecodedPixels } from '@welkinar/core/worker'
import sample from './decoderSample.jpg?url'

/** Rows that are read from a decoded picture at once: a canvas of all of it would take its memory once more. */
const BAND = 256

/** The browser's own JPEG decoder, several times as fast as that in WebAssembly, where it reads the same pixels; `others` for all else. */
export function browserCodecs(others: Codecs): Codecs {
  let asOthers: Promise<boolean> | undefined
  return {
    ...others,
    async decoderFor(format) {
      if (format !== 'jpeg') return others.decoderFor(format)
      asOthers ??= readsAs(others).catch(() => false)
      if (!(await asOthers)) return others.decoderFor(format)
      // What it refuses the others may read.
      return (bytes) => decodeJpeg(bytes).catch(async () => (await others.decoderFor(format))(bytes))
    },
  }
}

/** Whether the pixels of a picture of colour noise, at an odd size and with reduced colour, are those that other codecs read. */
async function readsAs(others: Codecs): Promise<boolean> {
  const bytes = new Uint8Array(await (await fetch(sample)).arrayBuffer())
  const [own, wanted] = await Promise.all([decodeJpeg(bytes), others.decoderFor('jpeg').then((decode) => decode(bytes))])
  return own.data.length === wanted.data.length && own.data.every((value, i) => value === wanted.data[i])
}

/** @throws Error if the browser cannot decode it */
async function decodeJpeg(bytes: Uint8Array): Promise<DecodedPixels> {
  const file = new Blob(jpegWithoutMetadata(bytes) as Uint8Array<ArrayBuffer>[], { type: 'image/jpeg' })
  const picture = await createImageBitmap(file, { colorSpaceConversion: 'none' })
  try {
    const { width, height } = picture
    const data = new Uint8ClampedArray(sharedBuffer(width * height * 4))
    const band = new OffscreenCanvas(width, Math.min(BAND, height)).getContext('2d', { willReadFrequently: true, alpha: false })
    if (!band) throw new Error('There is no canvas.')
    for (let y = 0; y < height; y += BAND) {
      band.drawImage(picture, 0, -y)
      data.set(band.getImageData(0, 0, width, Math.min(BAND, height - y)).data, y * width * 4)
    }
    return { width, height, data }
  } finally {
    picture.close()
  }
}
