import { littleAt, numberAt, textAt } from '../bytesAt'

/** The EXIF block of a photo file (CIPA DC-008), a TIFF of its own, as it stands there: of JPEG, PNG and WebP. Undefined if there is none. */
export function exifOf(bytes: Uint8Array): Uint8Array | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return ofJpeg(bytes)
  if (textAt(bytes, 1, 3) === 'PNG') return ofPng(bytes)
  if (textAt(bytes, 0, 4) === 'RIFF' && textAt(bytes, 8, 4) === 'WEBP') return ofWebp(bytes)
  return undefined
}

const MARK = 'Exif\0\0'
const APPLICATION_1 = 0xe1
const START_OF_SCAN = 0xda

function ofJpeg(bytes: Uint8Array): Uint8Array | undefined {
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== START_OF_SCAN;) {
    if (bytes[at + 1] === 0xff) {
      at++
      continue
    }
    const end = at + 2 + numberAt(bytes, at + 2, 2)
    if (bytes[at + 1] === APPLICATION_1 && textAt(bytes, at + 4, MARK.length) === MARK) return bytes.subarray(at + 4 + MARK.length, end)
    at = end
  }
  return undefined
}

/** Chunk eXIf (W3C PNG, third edition, 11.3.4.2). */
function ofPng(bytes: Uint8Array): Uint8Array | undefined {
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = numberAt(bytes, at, 4)
    if (textAt(bytes, at + 4, 4) === 'eXIf') return bytes.subarray(at + 8, at + 8 + length)
    at += 12 + length
  }
  return undefined
}

function ofWebp(bytes: Uint8Array): Uint8Array | undefined {
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = littleAt(bytes, at + 4)
    if (textAt(bytes, at, 4) === 'EXIF') {
      const body = bytes.subarray(at + 8, at + 8 + length)
      // Some writers put the mark of JPEG before it.
      return textAt(body, 0, MARK.length) === MARK ? body.subarray(MARK.length) : body
    }
    at += 8 + length + (length % 2)
  }
  return undefined
}
