import type { Size } from '../fileFormat'

const HEAD = 12
const CHUNK_HEAD = 8
const HAS_PROFILE = 0x20

/**
 * A WebP file with a colour profile: the extended format (RFC 9649, 2.7), with the picture of a simple file.
 * @param simple a file of one chunk, as libwebp writes it of opaque pixels
 */
export function webpWithProfile(simple: Uint8Array, { width, height }: Size, profile: Uint8Array): Uint8Array<ArrayBuffer> {
  const flags = new Uint8Array(10)
  const view = new DataView(flags.buffer)
  flags[0] = HAS_PROFILE
  // 24 bits each.
  view.setUint16(4, (width - 1) & 0xffff, true)
  flags[6] = (width - 1) >> 16
  view.setUint16(7, (height - 1) & 0xffff, true)
  flags[9] = (height - 1) >> 16
  const parts = [chunk('VP8X', flags), chunk('ICCP', profile), simple.subarray(HEAD)]
  const length = parts.reduce((sum, part) => sum + part.length, HEAD)
  const file = new Uint8Array(length)
  file.set(simple.subarray(0, HEAD))
  new DataView(file.buffer).setUint32(4, length - 8, true)
  let at = HEAD
  for (const part of parts) {
    file.set(part, at)
    at += part.length
  }
  return file
}

/** Chunks have an even length. */
function chunk(name: string, data: Uint8Array): Uint8Array {
  const all = new Uint8Array(CHUNK_HEAD + data.length + (data.length % 2))
  all.set([...name].map((letter) => letter.charCodeAt(0)))
  new DataView(all.buffer).setUint32(4, data.length, true)
  all.set(data, CHUNK_HEAD)
  return all
}
