import createTurbo, { type TurboModule } from '@cornerstonejs/codec-libjpeg-turbo-8bit/wasmjs'
import type { LoadCodec } from '../../codecModules'
import type { Band, EncodedBand } from '../fileFormat'
import { FULL_COLOUR_FROM } from './fullColour'
import { bandOfJpegs, rowsToRestart } from './jpegSegments'

let turbo: Promise<TurboModule> | undefined

function prepare(load: LoadCodec): Promise<TurboModule> {
  turbo ??= load('jpegEncoder').then((module) =>
    createTurbo({
      instantiateWasm(imports, receive) {
        const instance = new WebAssembly.Instance(module, imports)
        receive(instance)
        return instance.exports
      },
    }),
  )
  turbo.catch(() => (turbo = undefined))
  return turbo
}

/**
 * Rows of a baseline JPEG by libjpeg-turbo.
 * @param quality 1-100
 */
export async function encodeJpegBand(band: Band, quality: number, load: LoadCodec): Promise<EncodedBand> {
  const module = await prepare(load)
  return bandOfJpegs(piecesOf(band).map((piece) => encode(module, piece, quality)))
}

/** A band from restart marker to restart marker. */
export function piecesOf({ width, height, data }: Band): Band[] {
  const rows = rowsToRestart(width)
  return Array.from({ length: Math.ceil(height / rows) }, (_, index) => {
    const first = index * rows
    const piece = data.subarray(first * width * 4, Math.min(height, first + rows) * width * 4)
    return { width, height: piece.length / width / 4, depth: 8 as const, data: piece }
  })
}

function encode({ JPEGEncoder }: TurboModule, { width, height, data }: Band, quality: number): Uint8Array {
  const encoder = new JPEGEncoder()
  try {
    const samples = encoder.getDecodedBuffer({ width, height, bitsPerSample: 8, componentCount: 3, isSigned: false })
    for (let from = 0, to = 0; from < data.length; from += 4, to += 3) {
      samples[to] = data[from] ?? 0
      samples[to + 1] = data[from + 1] ?? 0
      samples[to + 2] = data[from + 2] ?? 0
    }
    encoder.setQuality(quality)
    encoder.setSubSampling(quality >= FULL_COLOUR_FROM ? 0 : 2)
    encoder.setProgressive(false)
    encoder.encode()
    return encoder.getEncodedBuffer().slice()
  } finally {
    encoder.delete()
  }
}
