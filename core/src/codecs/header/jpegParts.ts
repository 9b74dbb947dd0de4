/** Markers of a JPEG (ITU-T T.81, table B.1), without the 0xff before them. */
export const jpegMarkers = {
  startOfScan: 0xda,
  endOfImage: 0xd9,
  application1: 0xe1,
  application2: 0xe2,
  application14: 0xee,
  application15: 0xef,
} as const

/** Whether a marker begins a frame. */
export function isFrameHeader(marker: number): boolean {
  return marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc
}

/** Where the next segment begins. @param at the marker of one */
export function afterSegment(bytes: Uint8Array, at: number): number {
  return at + 2 + (((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0))
}

/**
 * The parts of a JPEG without what says how it is to be shown (EXIF, profiles and the like: application segments), so that a decoder gives its pixels as they are.
 * Application segment 14 stays: it says how colours are coded (ITU-T T.872). What is not a sound file comes back whole.
 */
export function jpegWithoutMetadata(bytes: Uint8Array): readonly Uint8Array[] {
  const { startOfScan, application1, application14, application15 } = jpegMarkers
  const parts = [bytes.subarray(0, 2)]
  for (let at = 2; at + 4 <= bytes.length;) {
    const marker = bytes[at + 1] ?? 0
    if (bytes[at] !== 0xff) break
    if (marker === startOfScan) return [...parts, bytes.subarray(at)]
    const end = marker === 0xff ? at + 1 : afterSegment(bytes, at)
    if (marker < application1 || marker > application15 || marker === application14) parts.push(bytes.subarray(at, end))
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
  for (; bytes[at + 1] !== jpegMarkers.startOfScan; at = afterSegment(bytes, at)) {
    if (!isFrameHeader(bytes[at + 1] ?? 0)) continue
    frame = at
    // Horizontal sampling of the first component stands in the upper half of the byte.
    unit = 8 * ((bytes[at + 11] ?? 0x11) >> 4)
  }
  const from = afterSegment(bytes, at)
  return { head: bytes.subarray(0, from), coded: bytes.subarray(from, Math.max(from, bytes.length - 2)), frame, scan: at, unit }
}
