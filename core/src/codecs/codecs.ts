import type { Kernels } from '../graph/operation'
import type { LoadCodec } from './codecModules'
import { decoderFor, type Decode } from './decodePixels'
import type { Band, EncodedBand } from './formats/fileFormat'
import { encodeJpegBand } from './formats/jpeg/encodeJpegBand'
import { deflateInScript, encodePngBand, type DeflateBand } from './formats/png/encodePngBand'
import type { ExportOptions } from './formats/registry'
import { toSrgb, type ProfileOutcome } from './profile/toSrgb'
import type { PhotoFormat } from './sniffFormat'

/** What reads and writes picture files. Whatever it is, the pixels that are read are the same. */
export interface Codecs {
  /** The decoder of a format, ready. It throws on data that cannot be decoded. @throws Error if there is none to be had */
  decoderFor(format: PhotoFormat): Promise<Decode>
  /** Converts interleaved RGBA from an ICC profile to sRGB, in place. */
  toSrgb(profile: Uint8Array, data: Uint8ClampedArray | Uint16Array): Promise<ProfileOutcome>
  /** Rows of a picture as the format has them. */
  encodeBand(band: Band, options: ExportOptions, kernels: Kernels): Promise<EncodedBand>
}

/** Codecs in JavaScript and WebAssembly, for wherever there are no others. @param deflate a faster one that gives the same bytes */
export function wasmCodecs(load: LoadCodec, deflate: DeflateBand = deflateInScript): Codecs {
  return {
    decoderFor: (format) => decoderFor(format, load),
    toSrgb: (profile, data) => toSrgb(profile, data, load),
    encodeBand: async (band, { format, quality }, kernels) =>
      format === 'png' ? encodePngBand(band, kernels, deflate) : encodeJpegBand(band, quality, load),
  }
}
