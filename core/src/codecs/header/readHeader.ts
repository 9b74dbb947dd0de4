import { sniffFormat, type PhotoFormat } from '../sniffFormat'
import { readHeifHeader } from './heifHeader'
import { readJpegHeader } from './jpegHeader'
import { emptyHeader, type PhotoHeader } from './photoHeader'
import { readPngHeader } from './pngHeader'
import { readTiffHeader } from './tiffHeader'
import { readWebpHeader } from './webpHeader'

const readers: Readonly<Record<PhotoFormat, (bytes: Uint8Array) => PhotoHeader>> = {
  jpeg: readJpegHeader,
  png: readPngHeader,
  webp: readWebpHeader,
  avif: readHeifHeader,
  heic: readHeifHeader,
  tiff: readTiffHeader,
  // A camera's file begins with a small picture, whose header says nothing of it; it is developed upright, to sRGB or a space.
  raw: () => emptyHeader,
}

/** What a picture file says before it is decoded, whatever its bytes are. */
export function readHeader(bytes: Uint8Array, format: PhotoFormat): PhotoHeader {
  return readers[format](bytes)
}

/** The EXIF block of a photo file (CIPA DC-008), a TIFF of its own, as it stands there: of JPEG, PNG and WebP. Undefined if there is none. */
export function exifOf(bytes: Uint8Array): Uint8Array | undefined {
  const sniffed = sniffFormat(bytes, '')
  return 'format' in sniffed ? readHeader(bytes, sniffed.format).exif : undefined
}

/** Width and height of a picture file, as it is coded, px; 0 where it is none, or its header is broken. */
export function sizeOfFile(bytes: Uint8Array): { readonly width: number; readonly height: number } {
  const sniffed = sniffFormat(bytes, '')
  const { width, height } = 'format' in sniffed ? readHeader(bytes, sniffed.format) : emptyHeader
  return { width, height }
}
