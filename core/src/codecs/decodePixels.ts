import decodeAvif, { init as initAvif } from '@jsquash/avif/decode.js'
import decodeJpeg, { init as initJpeg } from '@jsquash/jpeg/decode.js'
import { decode as decodePng, init as initPng } from '@jsquash/png/decode.js'
import decodeWebp, { init as initWebp } from '@jsquash/webp/decode.js'
import type { ColourSpace } from '../colour/colourSpace'
import type { CodecName, LoadCodec } from './codecModules'
import type { Pulse } from '../photo/pulse'
import type { PhotoFormat } from './sniffFormat'
import type { DecodeJpeg } from './tiff/decodeTiff'

/** Decoded pixels: interleaved RGBA, 8 or 16 bits a channel. */
export interface DecodedPixels {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray | Uint16Array
  /** What the four channels are, where they are not red, green, blue and alpha: cyan, magenta, yellow and black; or L, a and b about their middle, and alpha. */
  readonly model?: 'cmyk' | 'lab' | undefined
  /** Whether it was turned as the file says already. */
  readonly isUpright?: boolean
  /** Whether the decoder had to make up for something. */
  readonly isDamaged?: boolean
}

type Init = (module: WebAssembly.Module) => Promise<unknown>
type InitWith = (module: WebAssembly.Module, options: { printErr(line: string): void }) => Promise<unknown>

const ready = new Map<CodecName, Promise<unknown>>()

/** Makes a codec ready once. Emscripten's and wasm-bindgen's initialisers both take a compiled module. */
function prepareCodec(name: CodecName, load: LoadCodec, init: unknown): Promise<unknown> {
  let preparing = ready.get(name)
  if (!preparing) {
    preparing = load(name).then((module) => (init as Init)(module))
    preparing.catch(() => ready.delete(name))
    ready.set(name, preparing)
  }
  return preparing
}

/** @param space which a raw file is developed to; other files have their own */
export type Decode = (bytes: Uint8Array, space?: ColourSpace, pulse?: Pulse) => Promise<DecodedPixels>

interface Decoder {
  /** The WebAssembly that it needs; nothing for one in JavaScript. */
  readonly codec?: CodecName
  readonly init?: unknown
  decode(bytes: Uint8Array, load: LoadCodec, space?: ColourSpace, pulse?: Pulse): Promise<DecodedPixels>
  /** A coarser picture, which is there sooner. */
  decodeQuickly?(bytes: Uint8Array, load: LoadCodec): Promise<DecodedPixels>
}

/** The decoder of JPEG goes on where data does not fit (ends too early, goes on behind the picture, has codes that do not exist), and says it in passing. */
let jpegComplaints = 0

const copyOf = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer as ArrayBuffer

const decoders: Record<PhotoFormat, Decoder> = {
  jpeg: {
    codec: 'jpegDecoder',
    init: (module: WebAssembly.Module) => (initJpeg as InitWith)(module, { printErr: () => jpegComplaints++ }),
    async decode(bytes) {
      const before = jpegComplaints
      const { width, height, data } = await decodeJpeg(copyOf(bytes))
      return { width, height, data, isDamaged: jpegComplaints > before }
    },
  },
  png: {
    codec: 'png',
    init: initPng,
    decode: (bytes) => ((bytes[24] ?? 8) > 8 ? decodePng16(bytes) : decodePng(copyOf(bytes))),
  },
  webp: { codec: 'webpDecoder', init: initWebp, decode: (bytes) => decodeWebp(copyOf(bytes)) },
  avif: {
    codec: 'avifDecoder',
    init: initAvif,
    async decode(bytes) {
      const picture = await decodeAvif(copyOf(bytes))
      if (!picture) throw new Error('The AVIF decoder gave nothing.')
      return picture
    },
  },
  // They are large, and seldom needed.
  heic: { decode: async (bytes) => (await import('./heif/decodeHeic')).decodeHeic(bytes) },
  tiff: {
    async decode(bytes, load, _space, pulse) {
      const jpeg: DecodeJpeg = async (block) => (await decoderFor('jpeg', load))(block)
      return (await import('./tiff/decodeTiff')).decodeTiff(bytes, jpeg, pulse)
    },
  },
  raw: {
    decode: async (bytes, load, space) => (await import('./decodeRaw')).decodeRaw(bytes, load, { space }),
    decodeQuickly: async (bytes, load) => (await import('./decodeRaw')).decodeRaw(bytes, load, { half: true }),
  },
}

/** Sixteen bits a channel. The picture lies in the memory of the codec until it is freed there. */
async function decodePng16(bytes: Uint8Array): Promise<DecodedPixels> {
  const picture = await decodePng(copyOf(bytes), { bitDepth: 16 })
  const { width, height, data } = picture
  picture.free()
  return { width, height, data }
}

/** A coarser picture, which is there sooner; nothing if the format has none. @throws whatever its codec throws on broken data */
export async function decodeQuickly(format: PhotoFormat, bytes: Uint8Array, load: LoadCodec): Promise<DecodedPixels | undefined> {
  return decoders[format].decodeQuickly?.(bytes, load)
}

/** The decoder of a format, ready. It throws whatever its codec throws on broken data. @throws Error if the codec cannot be loaded */
export async function decoderFor(format: PhotoFormat, load: LoadCodec): Promise<Decode> {
  const { codec, init, decode } = decoders[format]
  if (codec === undefined) return (bytes, space, pulse) => decode(bytes, load, space, pulse)
  await prepareCodec(codec, load, init)
  return (bytes) =>
    decode(bytes, load).catch((error: unknown) => {
      // One that broken data has stopped halfway may be in any state: it is made anew the next time. That of PNG stays as it is (`readPngHeader`).
      ready.delete(codec)
      throw error
    })
}
