import { jpegParts } from '../../header/jpegParts'
import type { EncodedBand, Size } from '../fileFormat'
import { BAND_ROWS } from '../fileFormat'

const FIRST_RESTART = 0xd0
const RESTARTS = 8
const MOST_UNITS = 0xffff

export const END = Uint8Array.of(0xff, 0xd9)

/** What stands between two parts of the coded data. @param index of the part before it */
export function restartMarker(index: number): Uint8Array<ArrayBuffer> {
  return Uint8Array.of(0xff, FIRST_RESTART + (index % RESTARTS))
}

/**
 * Rows from one restart marker to the next: a restart interval counts 16 bits of coded units (ITU-T T.81, B.2.4.4), which are not less than 8 px wide and high.
 * It divides `BAND_ROWS`, and whole units divide it.
 */
export function rowsToRestart(width: number): number {
  let rows = BAND_ROWS
  while (Math.ceil(width / 8) * (rows / 8) > MOST_UNITS) rows /= 2
  return rows
}

/** A part of a picture, encoded by itself, as it stands in the file of the whole one. */
export function bandOfJpegs(files: readonly Uint8Array[]): EncodedBand {
  const split = files.map(jpegParts)
  return { head: new Uint8Array(split[0]?.head ?? []), parts: split.map(({ coded }) => new Blob([new Uint8Array(coded)])) }
}

/** The head of the whole file: that of a part, with the height of all and the restart interval. */
export function jpegHead(head: Uint8Array, { width, height }: Size): Uint8Array<ArrayBuffer> {
  const { frame, scan, unit } = jpegParts(head)
  const interval = Math.ceil(width / unit) * (rowsToRestart(width) / unit)
  const whole = new Uint8Array(head.length + 6)
  whole.set(head.subarray(0, scan))
  whole.set([0xff, 0xdd, 0, 4, interval >> 8, interval & 0xff], scan)
  whole.set(head.subarray(scan), scan + 6)
  new DataView(whole.buffer).setUint16(frame + 5, height)
  return whole
}

const EXIF_MARK = [...'Exif\0\0'].map((letter) => letter.charCodeAt(0))
/** A profile in one segment: the first of one (ICC.1:2022, annex B.4). */
const PROFILE_MARK = [...[...'ICC_PROFILE\0'].map((letter) => letter.charCodeAt(0)), 1, 1]
const MOST_OF_SEGMENT = 65535

/** Bytes of an EXIF block for which there is room in a segment. */
export const MOST_EXIF = MOST_OF_SEGMENT - 2 - EXIF_MARK.length

/** Application segment 1 with an EXIF block; nothing for one that does not fit into a segment. */
export function exifSegment(block: Uint8Array): Uint8Array<ArrayBuffer> | undefined {
  return block.length > MOST_EXIF ? undefined : segmentOf(1, EXIF_MARK, block)
}

/** Application segment 2 with a small colour profile. */
export function profileSegment(profile: Uint8Array): Uint8Array<ArrayBuffer> {
  return segmentOf(2, PROFILE_MARK, profile)
}

function segmentOf(application: number, mark: readonly number[], block: Uint8Array): Uint8Array<ArrayBuffer> {
  const length = 2 + mark.length + block.length
  const segment = new Uint8Array(2 + length)
  segment.set([0xff, 0xe0 + application, length >> 8, length & 0xff, ...mark])
  segment.set(block, 4 + mark.length)
  return segment
}
