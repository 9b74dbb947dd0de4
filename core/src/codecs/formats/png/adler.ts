import { buf as adler32 } from 'adler-32'
import type { Checksum } from '../fileFormat'

/** Largest prime below 2^16. */
const BASE = 65521

export function checksumOf(bytes: Uint8Array): Checksum {
  return { adler: adler32(bytes) >>> 0, length: bytes.length }
}

/**
 * Adler-32 of pieces one behind the other, from those of the pieces. Both of its sums begin anew in each piece (the first at 1): what stands before it adds
 * its first sum, less 1, to the first, and as often as there are bytes to the second (RFC 1950, section 8.2).
 */
export function joinedAdler(pieces: readonly Checksum[]): number {
  let [first, second] = [1, 0]
  for (const { adler, length } of pieces) {
    second = (second + (adler >>> 16) + (length % BASE) * (first - 1 + BASE)) % BASE
    first = (first + (adler & 0xffff) - 1 + BASE) % BASE
  }
  return ((second << 16) | first) >>> 0
}
