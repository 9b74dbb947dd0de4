import { buf as crc32 } from 'crc-32'

/** A chunk of a PNG: length, name, data, checksum (W3C PNG, third edition, section 5.3). */
export function pngChunk(
  name: 'IHDR' | 'sRGB' | 'iCCP' | 'eXIf' | 'acTL' | 'fcTL' | 'fdAT' | 'IDAT' | 'IEND',
  data: Uint8Array,
): Uint8Array<ArrayBuffer> {
  const chunk = new Uint8Array(data.length + 12)
  const view = new DataView(chunk.buffer)
  view.setUint32(0, data.length)
  for (let i = 0; i < 4; i++) chunk[4 + i] = name.charCodeAt(i)
  chunk.set(data, 8)
  view.setInt32(8 + data.length, crc32(chunk.subarray(4, 8 + data.length)))
  return chunk
}
