import type { LoadCodec } from './codecModules'
import { decoderFor, type Decode } from './decodePixels'
import { encodePicture, type ExportOptions } from './encodePicture'
import type { PhotoFormat } from './sniffFormat'

/** What reads and writes picture files. Whatever it is, the pixels that are read are the same. */
export interface Codecs {
  /** The decoder of a format, ready. It throws on data that cannot be decoded. @throws Error if there is none to be had */
  decoderFor(format: PhotoFormat): Promise<Decode>
  /** The file of a picture: interleaved 8-bit RGBA, all of it opaque. */
  encode(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number, options: ExportOptions): Promise<Blob>
}

/** Codecs in WebAssembly, for wherever there are no others. */
export function wasmCodecs(load: LoadCodec): Codecs {
  return {
    decoderFor: (format) => decoderFor(format, load),
    encode: (pixels, width, height, options) => encodePicture(pixels, width, height, options, load),
  }
}
