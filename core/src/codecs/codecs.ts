import type { ColourSpace } from '../colour/colourSpace'
import type { Kernels } from '../graph/operation'
import type { LoadCodec } from './codecModules'
import { decodeQuickly, decoderFor, type Decode, type DecodedPixels } from './decodePixels'
import type { Band, EncodedBand, Size } from './formats/fileFormat'
import { encodeAvifBand } from './formats/avif/encodeAvifBand'
import { encodeJpegBand } from './formats/jpeg/encodeJpegBand'
import { encodePngBand } from './formats/png/encodePngBand'
import type { ExportFormat, ExportOptions } from './formats/registry'
import { encodeTiffBand } from './formats/tiff/encodeTiffBand'
import { encodeWebp } from './formats/webp/encodeWebp'
import { deflateInScript, type DeflateBand } from './formats/zlib'
import { toSpace, type ProfileOutcome } from './profile/toSpace'
import type { Pulse } from '../photo/pulse'
import type { PhotoFormat } from './sniffFormat'

/** What reads and writes picture files. Whatever it is, the pixels that are read are the same. */
export interface Codecs {
  /** The decoder of a format, ready. It throws on data that cannot be decoded. @throws Error if there is none to be had */
  decoderFor(format: PhotoFormat): Promise<Decode>
  /** A coarser picture of a file, which is there sooner, for while it is opened; nothing if its format has none. It throws on data that cannot be decoded. */
  decodeQuickly(format: PhotoFormat, bytes: Uint8Array): Promise<DecodedPixels | undefined>
  /** Converts interleaved RGBA, inks or Lab from an ICC profile to a space, or to that of another profile; codes of 16 bits in place. */
  toSpace(
    profile: Uint8Array | undefined,
    pixels: Pick<DecodedPixels, 'data' | 'model'>,
    space: ColourSpace | Uint8Array,
    pulse?: Pulse,
  ): Promise<ProfileOutcome>
  /** Rows of a picture as the format has them. */
  encodeBand(band: Band, options: ExportOptions, kernels: Kernels): Promise<EncodedBand>
  /** All rows of a picture, for a format that has no parts which stand alone. */
  encodeWhole(rows: readonly Blob[], size: Size, options: ExportOptions): Promise<EncodedBand>
}

/** Codecs in JavaScript and WebAssembly, for wherever there are no others. @param deflate a faster one that gives the same bytes */
export function wasmCodecs(load: LoadCodec, deflate: DeflateBand = deflateInScript): Codecs {
  return {
    decoderFor: (format) => decoderFor(format, load),
    decodeQuickly: (format, bytes) => decodeQuickly(format, bytes, load),
    toSpace: (profile, pixels, space, pulse) => toSpace(profile, pixels, space, load, pulse),
    encodeBand: async (band, { format, quality }, kernels) => encoders[format]({ band, quality, kernels, deflate, load }),
    encodeWhole: (rows, size, { quality }) => encodeWebp(rows, size, quality, load),
  }
}

interface Encoding {
  readonly band: Band
  readonly quality: number
  readonly kernels: Kernels
  readonly deflate: DeflateBand
  readonly load: LoadCodec
}

const encoders: Readonly<Record<ExportFormat, (from: Encoding) => EncodedBand | Promise<EncodedBand>>> = {
  png: ({ band, kernels, deflate }) => encodePngBand(band, kernels, deflate),
  jpeg: ({ band, quality, load }) => encodeJpegBand(band, quality, load),
  // Encoded when all of it is there.
  webp: ({ band }) => ({ parts: [new Blob([band.data])] }),
  avif: ({ band, quality, load }) => encodeAvifBand(band, quality, load),
  tiff: ({ band, deflate }) => encodeTiffBand(band, deflate),
}
