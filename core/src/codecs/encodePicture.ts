import encodeJpeg, { init as initJpeg } from '@jsquash/jpeg/encode.js'
import encodePng, { init as initPng } from '@jsquash/png/encode.js'
import type { LoadCodec } from './codecModules'
import { prepareCodec } from './decodePixels'

export const exportFormats = ['png', 'jpeg'] as const
export type ExportFormat = (typeof exportFormats)[number]

export interface ExportOptions {
  readonly format: ExportFormat
  /** 1-100, for JPEG. */
  readonly quality: number
}

/** Encodes interleaved 8-bit RGBA, all of it opaque. */
export async function encodePicture(
  pixels: Uint8ClampedArray<ArrayBuffer>,
  width: number,
  height: number,
  options: ExportOptions,
  load: LoadCodec,
): Promise<ArrayBuffer> {
  const picture = { data: pixels, width, height, colorSpace: 'srgb' as const }
  if (options.format === 'png') {
    await prepareCodec('png', load, initPng)
    return encodePng(picture)
  }
  await prepareCodec('jpegEncoder', load, initJpeg)
  // Without chroma subsampling at high quality, so that coloured points of light keep their colour.
  const sampling = options.quality >= 90 ? { auto_subsample: false, chroma_subsample: 1 } : {}
  return encodeJpeg(picture, { quality: options.quality, ...sampling })
}
