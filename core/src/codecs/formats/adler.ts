import type { Checksum } from './fileFormat'

/** Largest prime below 2^16. */
const BASE = 65521
/** So many bytes can be summed before the second sum leaves 32 bits. */
const AT_ONCE = 5552

/** Adler-32 of bytes: their sum from 1 on, and the sum of all those sums (RFC 1950, section 8.2). */
export function checksumOf(bytes: Uint8Array): Checksum {
  let [first, second] = [1, 0]
  for (let from = 0; from < bytes.length; from += AT_ONCE) {
    const to = Math.min(bytes.length, from + AT_ONCE)
    for (let i = from; i < to; i++) second += first += bytes[i] ?? 0
    first %= BASE
    second %= BASE
  }
  return { adler: ((second << 16) | first) >>> 0, length: bytes.length }
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
