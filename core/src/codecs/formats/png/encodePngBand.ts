import { Deflate, Z_FULL_FLUSH, Z_RLE } from 'pako'
import type { Kernels } from '../../../graph/operation'
import type { Band, EncodedBand } from '../fileFormat'
import { checksumOf } from './adler'
import { filterRows } from './filterRows'
import { pngChunk } from './pngChunk'

const CHANNELS = 3
/** Runs of the byte before, as filtered pictures have them: a third of the time that looking for all repetitions takes, in files as small. */
const HOW = { raw: true, level: 6, strategy: Z_RLE }

/** Rows of a PNG: data chunk of deflate blocks that end on a byte and read nothing before them. */
export function encodePngBand({ width, height, data }: Band, kernels: Kernels): EncodedBand {
  const samples = new Uint8Array(width * height * CHANNELS)
  for (let from = 0, to = 0; from < data.length; from += 4, to += CHANNELS) {
    samples[to] = data[from] ?? 0
    samples[to + 1] = data[from + 1] ?? 0
    samples[to + 2] = data[from + 2] ?? 0
  }
  const filtered = filterRows(kernels, samples, width * CHANNELS, CHANNELS)
  return { parts: [new Blob([pngChunk('IDAT', deflated(filtered))])], checksum: checksumOf(filtered) }
}

function deflated(bytes: Uint8Array): Uint8Array {
  const pieces: Uint8Array[] = []
  const deflate = new Deflate(HOW)
  deflate.onData = (piece) => pieces.push(piece as Uint8Array)
  deflate.push(bytes, Z_FULL_FLUSH)
  const all = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const piece of pieces) {
    all.set(piece, at)
    at += piece.length
  }
  return all
}
