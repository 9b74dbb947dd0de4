import type { DecodedPixels } from '../decodePixels'
import { readHeifHeader } from '../header/heifHeader'

interface Channel {
  readonly width: number
  readonly height: number
  readonly stride: number
  readonly data: Uint8Array
}

interface Heif {
  readonly HeifDecoder: new () => {
    decode(bytes: Uint8Array): readonly { readonly handle: object; is_primary(): boolean; free?(): void }[]
  }
  readonly heif_colorspace: { readonly heif_colorspace_RGB: unknown }
  readonly heif_chroma: { readonly heif_chroma_interleaved_RGBA: unknown; readonly heif_chroma_interleaved_RRGGBBAA_LE: unknown }
  heif_js_decode_image2(handle: object, space: unknown, chroma: unknown): { readonly channels?: readonly Channel[] }
}

let heif: Promise<Heif> | undefined

/** The picture of a HEIC file, as phones give them, upright; of 8 bits a channel, or of 16 where it has more. By libheif. @throws Error on data that cannot be decoded */
export async function decodeHeic(bytes: Uint8Array): Promise<DecodedPixels> {
  heif ??= import('libheif-js/libheif-wasm/libheif-bundle.mjs').then(({ default: start }) => start() as unknown as Heif)
  heif.catch(() => (heif = undefined))
  const library = await heif
  const images = new library.HeifDecoder().decode(bytes)
  const image = images.find((one) => one.is_primary()) ?? images[0]
  if (!image) throw new Error('There is no picture in the file.')
  const { depth } = readHeifHeader(bytes)
  const { heif_chroma_interleaved_RGBA, heif_chroma_interleaved_RRGGBBAA_LE } = library.heif_chroma
  const chroma = depth > 8 ? heif_chroma_interleaved_RRGGBBAA_LE : heif_chroma_interleaved_RGBA
  try {
    const [channel] = library.heif_js_decode_image2(image.handle, library.heif_colorspace.heif_colorspace_RGB, chroma).channels ?? []
    if (!channel) throw new Error('libheif gave nothing.')
    return { ...pixelsOf(channel, depth), isUpright: true }
  } finally {
    images.forEach((one) => one.free?.())
  }
}

function pixelsOf({ width, height, stride, data }: Channel, depth: number): DecodedPixels {
  const rowBytes = 4 * width * (depth > 8 ? 2 : 1)
  const rows = new Uint8Array(rowBytes * height)
  for (let y = 0; y < height; y++) rows.set(data.subarray(y * stride, y * stride + rowBytes), y * rowBytes)
  if (depth <= 8) return { width, height, data: new Uint8ClampedArray(rows.buffer) }
  const codes = new Uint16Array(rows.buffer)
  const scale = 65535 / (2 ** depth - 1)
  for (let i = 0; i < codes.length; i++) codes[i] = Math.round((codes[i] ?? 0) * scale)
  return { width, height, data: codes }
}
