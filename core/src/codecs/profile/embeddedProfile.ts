import { Inflate } from 'pako'
import { littleAt, numberAt, textAt } from '../bytesAt'
import { readHeifHeader } from '../heif/heifHeader'
import { joinBytes } from '../joinBytes'
import { pagesOf, readTiff, tags } from '../tiff/tiffDirectory'
import type { PhotoFormat } from '../sniffFormat'

/** A profile is not larger than this; those of printers take a few megabytes. */
const MOST_BYTES = 16e6

/** The ICC profile that a picture file carries, as it stands there; undefined if there is none, or it cannot be taken out. */
export function embeddedProfile(bytes: Uint8Array, format: PhotoFormat): Uint8Array | undefined {
  const profile = finders[format](bytes)
  return profile && profile.length >= LEAST_BYTES && profile.length <= MOST_BYTES ? profile : undefined
}

/** Header and tag count (ICC.1:2022, 7.1). */
const LEAST_BYTES = 132

const finders: Readonly<Record<PhotoFormat, (bytes: Uint8Array) => Uint8Array | undefined>> = {
  jpeg: ofJpeg,
  png: ofPng,
  webp: ofWebp,
  avif: ofHeif,
  heic: ofHeif,
  tiff: ofTiff,
  // It is decoded to sRGB.
  raw: () => undefined,
}

const JPEG_MARK = 'ICC_PROFILE\0'

/** Pieces in application segments 2, each with its number from 1 and the count of all (ICC.1:2022, annex B.4). */
function ofJpeg(bytes: Uint8Array): Uint8Array | undefined {
  const pieces: Uint8Array[] = []
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== 0xda;) {
    if (bytes[at + 1] === 0xff) {
      at++
      continue
    }
    const end = at + 2 + numberAt(bytes, at + 2, 2)
    const isPiece = bytes[at + 1] === 0xe2 && textAt(bytes, at + 4, JPEG_MARK.length) === JPEG_MARK
    if (isPiece)
      pieces[(bytes[at + 4 + JPEG_MARK.length] ?? 1) - 1] = bytes.subarray(at + 6 + JPEG_MARK.length, Math.min(end, bytes.length))
    at = end
  }
  if (pieces.length === 0 || pieces.includes(undefined as never)) return undefined
  return joinBytes(pieces)
}

/** Chunk iCCP: a name, a zero, the method 0, and the profile by zlib (W3C PNG, third edition, 11.3.2.3). */
function ofPng(bytes: Uint8Array): Uint8Array | undefined {
  for (let at = 8; at + 12 <= bytes.length; at += 12 + numberAt(bytes, at, 4)) {
    const name = textAt(bytes, at + 4, 4)
    if (name === 'IDAT') return undefined
    if (name !== 'iCCP') continue
    const data = bytes.subarray(at + 8, at + 8 + numberAt(bytes, at, 4))
    const zero = data.indexOf(0)
    return zero < 0 ? undefined : inflated(data.subarray(zero + 2))
  }
  return undefined
}

function inflated(data: Uint8Array): Uint8Array | undefined {
  const pieces: Uint8Array[] = []
  let total = 0
  const inflate = new Inflate()
  inflate.onData = (piece) => {
    total += piece.length
    // A small file can hold a huge profile of zeros.
    if (total > MOST_BYTES) throw new Error('too large')
    pieces.push(piece as Uint8Array)
  }
  try {
    inflate.push(data, true)
  } catch {
    return undefined
  }
  return inflate.err ? undefined : joinBytes(pieces)
}

/** Chunk ICCP of the extended container. */
function ofWebp(bytes: Uint8Array): Uint8Array | undefined {
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = littleAt(bytes, at + 4)
    if (textAt(bytes, at, 4) === 'ICCP') return bytes.subarray(at + 8, at + 8 + length)
    at += 8 + length + (length % 2)
  }
  return undefined
}

/** By the boxes of a HEIF file. */
function ofHeif(bytes: Uint8Array): Uint8Array | undefined {
  return readHeifHeader(bytes).profile
}

/** Tag 34675 of the first directory (ICC.1:2022, annex B.3). */
function ofTiff(bytes: Uint8Array): Uint8Array | undefined {
  return pagesOf(readTiff(bytes))[0]?.bytes(tags.profile)
}
