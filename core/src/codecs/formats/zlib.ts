import { Deflate, Z_FULL_FLUSH, Z_RLE } from 'pako'
import { joinBytes } from '../joinBytes'

/** Head of a zlib stream (RFC 1950): deflate with a window of 32 KB. */
export const ZLIB_HEAD = Uint8Array.of(0x78, 0x9c)
/** Last block of a deflate stream, empty (RFC 1951). */
export const LAST_BLOCK = [0x03, 0x00]

/**
 * Compresses bytes to deflate blocks that end on a byte, none of them the last (zlib: raw, level 6, strategy `Z_RLE`, full flush). Runs of the byte before, as filtered pictures have
 * them: a third of the time that looking for all repetitions takes, in files as small. Whatever it is, its bytes are the same.
 */
export type DeflateBand = (bytes: Uint8Array) => Uint8Array

export const deflateInScript: DeflateBand = (bytes) => {
  const pieces: Uint8Array[] = []
  const deflate = new Deflate({ raw: true, level: 6, strategy: Z_RLE })
  deflate.onData = (piece) => pieces.push(piece as Uint8Array)
  deflate.push(bytes, Z_FULL_FLUSH)
  return joinBytes(pieces)
}
