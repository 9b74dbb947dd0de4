import type { Band, EncodedBand } from '../fileFormat'
import { checksumOf } from '../adler'
import { LAST_BLOCK, ZLIB_HEAD, type DeflateBand } from '../zlib'

const CHANNELS = 3

/** A strip of a TIFF: red, green, blue, each less that of the pixel to its left, as a zlib stream (TIFF 6.0, section 14, and the supplement of 2002). */
export function encodeTiffBand(band: Band, deflate: DeflateBand): EncodedBand {
  const samples = band.depth === 8 ? differences(band) : deepDifferences(band)
  const end = new Uint8Array(6)
  end.set(LAST_BLOCK)
  new DataView(end.buffer).setUint32(2, checksumOf(samples).adler)
  return { parts: [new Blob([ZLIB_HEAD, deflate(samples) as Uint8Array<ArrayBuffer>, end])] }
}

function differences({ width, height, data }: Band): Uint8Array {
  const samples = new Uint8Array(width * height * CHANNELS)
  for (let i = 0; i < width * height; i++) {
    const isFirst = i % width === 0
    for (let k = 0; k < CHANNELS; k++) samples[CHANNELS * i + k] = (data[4 * i + k] ?? 0) - (isFirst ? 0 : (data[4 * i - 4 + k] ?? 0))
  }
  return samples
}

function deepDifferences({ width, height, data }: Band): Uint8Array {
  const codes = new Uint16Array(data.buffer, data.byteOffset, data.length / 2)
  const samples = new Uint16Array(width * height * CHANNELS)
  for (let i = 0; i < width * height; i++) {
    const isFirst = i % width === 0
    for (let k = 0; k < CHANNELS; k++) samples[CHANNELS * i + k] = (codes[4 * i + k] ?? 0) - (isFirst ? 0 : (codes[4 * i - 4 + k] ?? 0))
  }
  return new Uint8Array(samples.buffer)
}
