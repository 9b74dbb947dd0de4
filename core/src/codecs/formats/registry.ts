import type { ColourSpace } from '../../colour/colourSpace'
import type { BitDepth } from '../../render/renderTile'
import type { FileFormat } from './fileFormat'
import { jpegFormat } from './jpeg/jpegFormat'
import { pngFormat } from './png/pngFormat'
import { avifFormat } from './avif/avifFormat'
import { webpFormat } from './webp/webpFormat'
import { tiffFormat } from './tiff/tiffFormat'

/** What pictures can be written to. */
export const fileFormats = { png: pngFormat, jpeg: jpegFormat, webp: webpFormat, avif: avifFormat, tiff: tiffFormat } satisfies Record<
  string,
  FileFormat
>

export type ExportFormat = keyof typeof fileFormats

export const exportFormats = Object.keys(fileFormats) as readonly ExportFormat[]

export interface ExportOptions {
  readonly format: ExportFormat
  /** 1-100, for formats that have it. */
  readonly quality: number
  /** Bits of a channel; one that the format can hold. */
  readonly depth: BitDepth
  /** sRGB if left out. */
  readonly space?: ColourSpace
}

/** The format that a file of this name is written in. */
export function formatOfName(fileName: string): ExportFormat | undefined {
  const ending = /\.([^.]+)$/.exec(fileName)?.[1]?.toLowerCase() ?? ''
  return exportFormats.find((format) => fileFormats[format].endings.some((one) => one === ending))
}
