import exifr from 'exifr'
import { readHeifHeader } from './heif/heifHeader'
import type { PhotoFormat } from './sniffFormat'
import { pagesOf, readTiff, tags } from './tiff/tiffDirectory'

/** EXIF orientation 1-8; 1 if there is none or it cannot be read. Raw files are upright when they are decoded. */
export async function readOrientation(bytes: Uint8Array, format: PhotoFormat): Promise<number> {
  // EXIF says nothing of a HEIF file: its boxes do (ISO/IEC 23008-12, 6.5.10).
  if (format === 'avif' || format === 'heic') return readHeifHeader(bytes).turn
  if (format === 'tiff') return turnOf(pagesOf(readTiff(bytes))[0]?.value(tags.orientation))
  const block = format === 'webp' ? webpExif(bytes) : format === 'raw' ? undefined : bytes
  if (!block) return 1
  try {
    return turnOf(await exifr.orientation(block))
  } catch {
    return 1
  }
}

function turnOf(found: number | undefined): number {
  return found !== undefined && found >= 1 && found <= 8 ? found : 1
}

/** The EXIF chunk of a WebP file (RIFF), without the “Exif” prefix that some writers put before it. */
function webpExif(bytes: Uint8Array): Uint8Array | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let at = 12; at + 8 <= bytes.length;) {
    const name = String.fromCharCode(...bytes.subarray(at, at + 4))
    const size = view.getUint32(at + 4, true)
    const body = bytes.slice(at + 8, at + 8 + size)
    if (name === 'EXIF') return String.fromCharCode(...body.subarray(0, 4)) === 'Exif' ? body.slice(6) : body
    at += 8 + size + (size & 1)
  }
  return undefined
}

/** Pixels of any kind, one entry of the array a pixel. */
export interface PixelGrid<T extends Uint32Array | Uint16Array> {
  readonly width: number
  readonly height: number
  readonly pixels: T
}

/**
 * The picture as it should be seen: EXIF orientation undone.
 * @param orientation 1-8 of the Exif standard (CIPA DC-008, tag 0x0112)
 */
export function oriented<T extends Uint32Array | Uint16Array>(picture: PixelGrid<T>, orientation: number): PixelGrid<T> {
  if (orientation === 1) return picture
  const { width, height, pixels } = picture
  const swapped = orientation >= 5
  const mirrorX = [2, 3, 7, 8].includes(orientation)
  const mirrorY = [3, 4, 6, 7].includes(orientation)
  const outWidth = swapped ? height : width
  const outHeight = swapped ? width : height
  const out = pixels.slice() as T
  for (let y = 0; y < outHeight; y++) {
    for (let x = 0; x < outWidth; x++) {
      const u = swapped ? y : x
      const v = swapped ? x : y
      out[y * outWidth + x] = pixels[(mirrorY ? height - 1 - v : v) * width + (mirrorX ? width - 1 - u : u)] ?? 0
    }
  }
  return { width: outWidth, height: outHeight, pixels: out }
}
