import { buf as crc32 } from 'crc-32'

/** What the chunks of a PNG say (W3C PNG, third edition, section 5). */
export interface PngStructure {
  /** Whether the end chunk is there. */
  readonly complete: boolean
  /** Whether every chunk that the picture needs has the checksum that was written with it. */
  readonly sound: boolean
}

const SIGNATURE = 8
/** Length, name and checksum. */
const AROUND = 12
/** Bit of a chunk's name that says that the picture can be shown without it. */
const ANCILLARY = 0x20

/**
 * Walks the chunks of a PNG. The decoder stops dead at broken data and cannot be made anew, so that it must not see any: broken data costs it stack
 * every time.
 */
export function readPngStructure(bytes: Uint8Array): PngStructure {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let at = SIGNATURE; at + AROUND <= bytes.length;) {
    const length = view.getUint32(at)
    const end = at + AROUND + length
    if (end > bytes.length) return { complete: false, sound: true }
    const needed = ((bytes[at + 4] ?? 0) & ANCILLARY) === 0
    if (needed && crc32(bytes.subarray(at + 4, end - 4)) !== view.getInt32(end - 4)) return { complete: true, sound: false }
    if (String.fromCharCode(...bytes.subarray(at + 4, at + 8)) === 'IEND') return { complete: true, sound: true }
    at = end
  }
  return { complete: false, sound: true }
}
