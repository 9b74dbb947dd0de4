/** What the markers of a JPEG say (ITU-T T.81, annex B). */
export interface JpegStructure {
  /** Number of colour components; 4 are CMYK or YCCK. */
  readonly components: number
  /** Whether the end-of-image marker is there. */
  readonly complete: boolean
  /** What it is, in words, if it is of a kind that no decoder here knows. */
  readonly unknown: string | undefined
}

const APPLICATION_1 = 0xe1
const APPLICATION_14 = 0xee
const APPLICATION_15 = 0xef
const START_OF_SCAN = 0xda
const END_OF_IMAGE = 0xd9

/** Walks the segments of a JPEG. Broken structure reads as incomplete. */
export function readJpegStructure(bytes: Uint8Array): JpegStructure {
  let components = 0
  let unknown: string | undefined
  let at = 2
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return { components, unknown, complete: false }
    const marker = bytes[at + 1] ?? 0
    if (marker === 0xff) at++
    else {
      if (isFrameHeader(marker)) {
        components = bytes[at + 9] ?? 0
        unknown = unknownKind(marker, bytes[at + 4] ?? 8)
      }
      if (marker === START_OF_SCAN) return { components, unknown, complete: endsAfter(bytes, at + 2) }
      at = afterSegment(bytes, at)
    }
  }
  return { components, unknown, complete: false }
}

/** Frames of ITU-T T.81, table B.1: baseline, extended and progressive with Huffman codes are known, of 8 bits. */
function unknownKind(marker: number, bits: number): string | undefined {
  if (marker === 0xc3 || marker === 0xc7 || marker === 0xcb || marker === 0xcf) return 'a lossless JPEG'
  if (marker > 0xc7) return 'a JPEG with arithmetic coding'
  if (marker > 0xc3) return 'a JPEG in layers'
  return bits === 8 ? undefined : `a JPEG of ${bits} bits a channel`
}

function isFrameHeader(marker: number): boolean {
  return marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc
}

/** Whether an end-of-image marker comes in or behind the scans: a 0xff of the coded data is always followed by 0 or a restart marker. */
function endsAfter(bytes: Uint8Array, start: number): boolean {
  for (let i = bytes.indexOf(0xff, start); i >= 0 && i + 1 < bytes.length; i = bytes.indexOf(0xff, i + 1)) {
    if (bytes[i + 1] === END_OF_IMAGE) return true
  }
  return false
}

/**
 * The parts of a JPEG without what says how it is to be shown (EXIF, profiles and the like: application segments), so that a decoder gives its pixels as they are.
 * Application segment 14 stays: it says how colours are coded (ITU-T T.872). What is not a sound file comes back whole.
 */
export function jpegWithoutMetadata(bytes: Uint8Array): readonly Uint8Array[] {
  const parts = [bytes.subarray(0, 2)]
  for (let at = 2; at + 4 <= bytes.length;) {
    const marker = bytes[at + 1] ?? 0
    if (bytes[at] !== 0xff) break
    if (marker === START_OF_SCAN) return [...parts, bytes.subarray(at)]
    const end = marker === 0xff ? at + 1 : afterSegment(bytes, at)
    if (marker < APPLICATION_1 || marker > APPLICATION_15 || marker === APPLICATION_14) parts.push(bytes.subarray(at, end))
    at = end
  }
  return [bytes]
}

/** Where things stand in a baseline JPEG of one scan. */
export interface JpegParts {
  /** All up to the coded data. */
  readonly head: Uint8Array
  /** From there to the end-of-image marker. */
  readonly coded: Uint8Array
  /** Offset of the frame header's marker. */
  readonly frame: number
  /** Offset of the scan header's marker. */
  readonly scan: number
  /** Width and height of what is coded together, px: 8 at full colour, 16 with halved colour. */
  readonly unit: number
}

/** The parts of a JPEG that is sound: one that an encoder has just made. */
export function jpegParts(bytes: Uint8Array): JpegParts {
  let [frame, unit] = [0, 8]
  let at = 2
  for (; bytes[at + 1] !== START_OF_SCAN; at = afterSegment(bytes, at)) {
    if (!isFrameHeader(bytes[at + 1] ?? 0)) continue
    frame = at
    // Horizontal sampling of the first component stands in the upper half of the byte.
    unit = 8 * ((bytes[at + 11] ?? 0x11) >> 4)
  }
  const from = afterSegment(bytes, at)
  return { head: bytes.subarray(0, from), coded: bytes.subarray(from, Math.max(from, bytes.length - 2)), frame, scan: at, unit }
}

function afterSegment(bytes: Uint8Array, at: number): number {
  return at + 2 + (((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0))
}
