import encodePng, { init as initPng } from '@jsquash/png/encode.js'
import type { LoadCodec } from './codecModules'
import { prepareCodec } from './decodePixels'
import { encodeJpeg } from './encodeJpeg'

export const exportFormats = ['png', 'jpeg'] as const
export type ExportFormat = (typeof exportFormats)[number]

export interface ExportOptions {
  readonly format: ExportFormat
  /** 1-100, for JPEG. */
  readonly quality: number
}

/** The file of a picture: interleaved 8-bit RGBA, all of it opaque. */
export async function encodePicture(
  pixels: Uint8ClampedArray<ArrayBuffer>,
  width: number,
  height: number,
  options: ExportOptions,
  load: LoadCodec,
): Promise<Blob> {
  const type = `image/${options.format}`
  if (options.format === 'jpeg') {
    const bytes = await encodeJpeg(pixels, width, height, options.quality, load)
    return new Blob([new Uint8Array(bytes)], { type })
  }
  await prepareCodec('png', load, initPng)
  return new Blob([await encodePng({ data: pixels, width, height, colorSpace: 'srgb' as const })], { type })
}
