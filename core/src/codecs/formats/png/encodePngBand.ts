import type { Kernels } from '../../../graph/operation'
import type { Band, EncodedBand } from '../fileFormat'
import { checksumOf } from '../adler'
import type { DeflateBand } from '../zlib'
import { filterRows } from './filterRows'
import { pngChunk } from './pngChunk'

const CHANNELS = 3

/** Rows of a PNG: data chunk of deflate blocks that end on a byte and read nothing before them. */
export function encodePngBand(band: Band, kernels: Kernels, deflate: DeflateBand): EncodedBand {
  const step = (CHANNELS * band.depth) / 8
  const filtered = filterRows(kernels, band.depth === 8 ? samplesOf(band) : deepSamplesOf(band), band.width * step, step)
  return { parts: [new Blob([pngChunk('IDAT', deflate(filtered))])], checksum: checksumOf(filtered) }
}

/** Red, green, blue. */
function samplesOf({ width, height, data }: Band): Uint8Array {
  const samples = new Uint8Array(width * height * CHANNELS)
  for (let from = 0, to = 0; from < data.length; from += 4, to += CHANNELS) {
    samples[to] = data[from] ?? 0
    samples[to + 1] = data[from + 1] ?? 0
    samples[to + 2] = data[from + 2] ?? 0
  }
  return samples
}

/** The same of 16 bits, the higher byte first. */
function deepSamplesOf({ width, height, data }: Band): Uint8Array {
  const samples = new Uint8Array(2 * width * height * CHANNELS)
  for (let from = 0, to = 0; from < data.length; from += 8, to += 2 * CHANNELS) {
    for (let i = 0; i < 2 * CHANNELS; i += 2) {
      samples[to + i] = data[from + i + 1] ?? 0
      samples[to + i + 1] = data[from + i] ?? 0
    }
  }
  return samples
}
