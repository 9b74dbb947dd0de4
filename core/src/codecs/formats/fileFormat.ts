import type { ColourSpace } from '../../colour/colourSpace'
import type { BitDepth } from '../../render/renderTile'

/** Rows of a picture: interleaved RGBA, all of it opaque, of 8 bits or of 16 with the lower byte first. */
export interface Band {
  readonly depth: BitDepth
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray<ArrayBuffer>
}

/** Some rows as they stand in the file. It does not depend on the rows above it, so that each thread can write its own. */
export interface EncodedBand {
  /** What the encoder lets a file begin with, the same for all bands. */
  readonly head?: Uint8Array<ArrayBuffer>
  readonly parts: readonly Blob[]
  /** Checksum over what was compressed. */
  readonly checksum?: Checksum
}

/** Adler-32 of some bytes (RFC 1950, section 8.2). */
export interface Checksum {
  readonly adler: number
  readonly length: number
}

export interface Size {
  readonly width: number
  readonly height: number
}

interface JoinOptions {
  readonly depth: BitDepth
  /** Of the codes; sRGB if left out. */
  readonly space?: ColourSpace
  /** EXIF block that the file carries, if the format can. */
  readonly exif?: Uint8Array<ArrayBuffer> | undefined
}

/** What a format can hold. What is not said is not limited. */
interface Limits {
  /** px */
  readonly mostWidth?: number
  readonly mostHeight?: number
  /** Bytes of the whole file. */
  readonly mostBytes?: number
  /** Bytes of an EXIF block. */
  readonly mostExif?: number
}

/** A kind of file that a picture can be written to. */
export interface FileFormat {
  readonly name: string
  /** Without the dot; the first is the one that is written. */
  readonly endings: readonly string[]
  readonly mediaType: string
  readonly hint: string
  /** Whether it keeps what the camera said: when, with which lens and the like. */
  readonly carriesExif: boolean
  /** Whether what is lost can be chosen, 1-100. */
  readonly hasQuality: boolean
  /** Bits of a channel that it can hold; the first is the usual one. */
  readonly depths: readonly BitDepth[]
  /** Whether it has no parts which stand alone: bands are rows of RGBA, and all of them are encoded together. */
  readonly asWhole?: boolean
  readonly limits: Limits
  /** The whole file. Each band but the last is as high as `BAND_ROWS`. */
  join(bands: readonly EncodedBand[], size: Size, options: JoinOptions): Blob | Promise<Blob>
}

/** Rows that are encoded together. A multiple of 16, the blocks of a JPEG. */
export const BAND_ROWS = 512
