import decodeAvif, { init as initAvif } from '@jsquash/avif/decode.js'
import decodeJpeg, { init as initJpeg } from '@jsquash/jpeg/decode.js'
import { decode as decodePng, init as initPng } from '@jsquash/png/decode.js'
import decodeWebp, { init as initWebp } from '@jsquash/webp/decode.js'
import type { CodecName, LoadCodec } from './codecModules'
import type { PhotoFormat } from './sniffFormat'

/** Decoded pixels: interleaved RGBA, 8 or 16 bits a channel. */
export interface DecodedPixels {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray | Uint16Array
}

type Init = (module: WebAssembly.Module) => Promise<unknown>

const ready = new Map<CodecName, Promise<unknown>>()

/** Makes a codec ready once. Emscripten's and wasm-bindgen's initialisers both take a compiled module. */
export function prepareCodec(name: CodecName, load: LoadCodec, init: unknown): Promise<unknown> {
  let preparing = ready.get(name)
  if (!preparing) {
    preparing = load(name).then((module) => (init as Init)(module))
    preparing.catch(() => ready.delete(name))
    ready.set(name, preparing)
  }
  return preparing
}

/** Decodes a file of a known format. @throws whatever the codec throws on broken data */
export async function decodePixels(bytes: Uint8Array, format: PhotoFormat, load: LoadCodec): Promise<DecodedPixels> {
  const buffer = bytes.slice().buffer
  switch (format) {
    case 'jpeg':
      await prepareCodec('jpegDecoder', load, initJpeg)
      return decodeJpeg(buffer)
    case 'png':
      await prepareCodec('png', load, initPng)
      return (bytes[24] ?? 8) > 8 ? decodePng(buffer, { bitDepth: 16 }) : decodePng(buffer)
    case 'webp':
      await prepareCodec('webpDecoder', load, initWebp)
      return decodeWebp(buffer)
    case 'avif': {
      await prepareCodec('avifDecoder', load, initAvif)
      const picture = await decodeAvif(buffer)
      if (!picture) throw new Error('The AVIF decoder gave nothing.')
      return picture
    }
  }
}
