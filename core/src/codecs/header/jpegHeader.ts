import { numberAt, textAt } from '../bytesAt'
import { joinBytes } from '../joinBytes'
import { EXIF_MARK, turnOfExif } from './exifBlock'
import { afterSegment, isFrameHeader, jpegMarkers } from './jpegParts'
import { emptyHeader, usableProfile, type PhotoHeader } from './photoHeader'

const PROFILE_MARK = 'ICC_PROFILE\0'

/** Walks the segments of a JPEG (ITU-T T.81, annex B) once. Broken structure reads as cut short. */
export function readJpegHeader(bytes: Uint8Array): PhotoHeader {
  let header = { ...emptyHeader, isCutShort: true }
  const pieces: Uint8Array[] = []
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1] ?? 0
    // A marker may stand behind any number of these.
    if (marker === 0xff) {
      at++
      continue
    }
    const end = afterSegment(bytes, at)
    const content = bytes.subarray(at + 4, Math.min(end, bytes.length))
    if (isFrameHeader(marker)) header = { ...header, ...ofFrame(marker, content) }
    if (marker === jpegMarkers.application1 && !header.exif && textAt(content, 0, EXIF_MARK.length) === EXIF_MARK)
      header.exif = content.subarray(EXIF_MARK.length)
    // Pieces have a number from 1, and the count of all (ICC.1:2022, annex B.4).
    if (marker === jpegMarkers.application2 && textAt(content, 0, PROFILE_MARK.length) === PROFILE_MARK)
      pieces[(content[PROFILE_MARK.length] ?? 1) - 1] = content.subarray(PROFILE_MARK.length + 2)
    if (marker === jpegMarkers.startOfScan) {
      header.isCutShort = !endsAfter(bytes, at + 2)
      break
    }
    at = end
  }
  const isWhole = pieces.length > 0 && !pieces.includes(undefined as never)
  return { ...header, profile: usableProfile(isWhole ? joinBytes(pieces) : undefined), turn: turnOfExif(header.exif) }
}

function ofFrame(marker: number, content: Uint8Array): Partial<PhotoHeader> {
  const depth = content[0] ?? 8
  const [height, width] = [numberAt(content, 1, 2), numberAt(content, 3, 2)]
  return { depth, height, width, isOfInks: content[5] === 4, unknownKind: unknownKind(marker, depth) }
}

/** Frames of table B.1: baseline, extended and progressive with Huffman codes are known, of 8 bits. */
function unknownKind(marker: number, bits: number): string | undefined {
  if (marker === 0xc3 || marker === 0xc7 || marker === 0xcb || marker === 0xcf) return 'a lossless JPEG'
  if (marker > 0xc7) return 'a JPEG with arithmetic coding'
  if (marker > 0xc3) return 'a JPEG in layers'
  return bits === 8 ? undefined : `a JPEG of ${bits} bits a channel`
}

/** Whether an end-of-image marker comes in or behind the scans: a 0xff of the coded data is always followed by 0 or a restart marker. */
function endsAfter(bytes: Uint8Array, start: number): boolean {
  for (let i = bytes.indexOf(0xff, start); i >= 0 && i + 1 < bytes.length; i = bytes.indexOf(0xff, i + 1)) {
    if (bytes[i + 1] === jpegMarkers.endOfImage) return true
  }
  return false
}
