import createTurbo, { type TurboModule } from '@cornerstonejs/codec-libjpeg-turbo-8bit/wasmjs'
import type { LoadCodec } from './codecModules'
import { FULL_COLOUR_FROM } from './fullColour'

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
 * A baseline JPEG by libjpeg-turbo.
 * @param rgba interleaved 8-bit RGBA; alpha is not written
 * @param quality 1-100
 */
export async function encodeJpeg(
  rgba: Uint8ClampedArray,
  width: number,
  height: number,
  quality: number,
  load: LoadCodec,
): Promise<Uint8Array> {
  const { JPEGEncoder } = await prepare(load)
  const encoder = new JPEGEncoder()
  try {
    const samples = encoder.getDecodedBuffer({ width, height, bitsPerSample: 8, componentCount: 3, isSigned: false })
    for (let from = 0, to = 0; from < rgba.length; from += 4, to += 3) {
      samples[to] = rgba[from] ?? 0
      samples[to + 1] = rgba[from + 1] ?? 0
      samples[to + 2] = rgba[from + 2] ?? 0
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
