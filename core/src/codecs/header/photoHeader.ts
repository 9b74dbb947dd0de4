import type { Described } from '../profile/describedProfile'

/** What a picture file says before anything of it is decoded; each format has its reader, and nothing else looks into the file for these. */
export interface PhotoHeader {
  /** Size as it is coded, before it is turned, px; 0 where it cannot be read. */
  readonly width: number
  readonly height: number
  /** How it is to be turned before it is shown, as an EXIF orientation, 1-8 (CIPA DC-008, tag 0x0112). */
  readonly turn: number
  /** Bits of a channel. */
  readonly depth: number
  /** Pictures in the file; smaller copies of another do not count. */
  readonly pages: number
  /** Whether these are shown one after the other. */
  readonly isAnimated: boolean
  /** Four inks rather than three colours. */
  readonly isOfInks: boolean
  /** What it is, in words, if no decoder here knows its kind. */
  readonly unknownKind?: string | undefined
  /** Whether the file ends before its end mark. */
  readonly isCutShort: boolean
  /** Whether its checksums are those of its data; true where it has none. */
  readonly isSound: boolean
  /** The ICC profile, as it stands there; nothing if there is none, or it cannot be taken out. */
  readonly profile: Uint8Array | undefined
  /** How it says without a profile what its codes are. */
  readonly described: Described | undefined
  /** The EXIF block, a TIFF of its own, as it stands there. */
  readonly exif: Uint8Array | undefined
}

/** A header that says nothing, to be filled in. */
export const emptyHeader: PhotoHeader = {
  width: 0,
  height: 0,
  turn: 1,
  depth: 8,
  pages: 1,
  isAnimated: false,
  isOfInks: false,
  isCutShort: false,
  isSound: true,
  profile: undefined,
  described: undefined,
  exif: undefined,
}

/** Header and tag count (ICC.1:2022, 7.1); profiles of printers take a few megabytes. */
const LEAST_PROFILE = 132
export const MOST_PROFILE = 16e6

/** A profile if it is of a size that one can have. */
export function usableProfile(profile: Uint8Array | undefined): Uint8Array | undefined {
  return profile && profile.length >= LEAST_PROFILE && profile.length <= MOST_PROFILE ? profile : undefined
}

/** An orientation if it is one; 1 for any other number. */
export function soundTurn(found: number | undefined): number {
  return found !== undefined && found >= 1 && found <= 8 ? found : 1
}
