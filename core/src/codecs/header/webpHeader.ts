import { littleAt, textAt } from '../bytesAt'
import { turnOfExif, withoutExifMark } from './exifBlock'
import { emptyHeader, usableProfile, type PhotoHeader } from './photoHeader'

const ANIMATION = 2
/** Sides are kept less one in 14 bits, or in 24. */
const FOURTEEN = 0x3fff
const TWENTY_FOUR = 0xffffff

/** Walks the chunks of a WebP (RIFF; WebP container specification; RFC 6386, 9.1, for the size) once. */
export function readWebpHeader(bytes: Uint8Array): PhotoHeader {
  let [size, profile, exif, isAnimated]: [{ width: number; height: number } | undefined, Uint8Array?, Uint8Array?, boolean?] = [undefined]
  for (let at = 12; at + 8 <= bytes.length;) {
    const [name, length] = [textAt(bytes, at, 4), littleAt(bytes, at + 4)]
    const content = bytes.subarray(at + 8, at + 8 + length)
    // The extended header stands before the picture and its own.
    size ??= sizeOf(name, content)
    if (name === 'VP8X') isAnimated = ((content[0] ?? 0) & ANIMATION) !== 0
    if (name === 'ICCP') profile = content
    if (name === 'EXIF') exif = withoutExifMark(content)
    at += 8 + length + (length % 2)
  }
  return {
    ...emptyHeader,
    ...size,
    // Its decoder reads single pictures only.
    unknownKind: isAnimated ? 'an animation' : undefined,
    profile: usableProfile(profile),
    exif,
    turn: turnOfExif(exif),
  }
}

function sizeOf(name: string, content: Uint8Array): { width: number; height: number } | undefined {
  if (content.length < (name === 'VP8L' ? 5 : 10)) return undefined
  if (name === 'VP8X') return { width: (littleAt(content, 4) & TWENTY_FOUR) + 1, height: (littleAt(content, 7) & TWENTY_FOUR) + 1 }
  if (name === 'VP8 ') return { width: littleAt(content, 6) & FOURTEEN, height: littleAt(content, 8) & FOURTEEN }
  if (name !== 'VP8L') return undefined
  const bits = littleAt(content, 1)
  return { width: (bits & FOURTEEN) + 1, height: ((bits >>> 14) & FOURTEEN) + 1 }
}
