import { colourSpaces, profileOf } from '../../../colour/colourSpace'
import type { FileFormat } from '../fileFormat'
import { checksumOf, joinedAdler } from '../adler'
import { joinBytes } from '../../joinBytes'
import { LAST_BLOCK, ZLIB_HEAD } from '../zlib'
import { pngChunk } from './pngChunk'

const SIGNATURE = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)
/** Colour without alpha, the only compression and filter method, not interlaced. */
const HOW = [2, 0, 0, 0]
/** Codes are sRGB, to be shown as perceived. */
const SRGB = Uint8Array.of(0)

/** Portable Network Graphics, W3C, third edition. */
export const pngFormat: FileFormat = {
  name: 'PNG',
  endings: ['png'],
  mediaType: 'image/png',
  hint: 'Every pixel as computed. For printing and for working on.',
  carriesExif: true,
  hasQuality: false,
  depths: [8, 16],
  // 31 bits each (W3C PNG, third edition, 7.1).
  limits: { mostWidth: 2147483647, mostHeight: 2147483647 },
  join(bands, { width, height }, { depth, exif, space = 'srgb' }) {
    const head = new Uint8Array(13)
    const view = new DataView(head.buffer)
    view.setUint32(0, width)
    view.setUint32(4, height)
    head.set([depth, ...HOW], 8)
    const end = new Uint8Array(6)
    end.set(LAST_BLOCK)
    new DataView(end.buffer).setUint32(2, joinedAdler(bands.flatMap(({ checksum }) => checksum ?? [])))
    const parts = [
      SIGNATURE,
      pngChunk('IHDR', head),
      space === 'srgb' ? pngChunk('sRGB', SRGB) : pngChunk('iCCP', namedProfile(colourSpaces[space].label, profileOf(space))),
      ...(exif ? [pngChunk('eXIf', exif)] : []),
      pngChunk('IDAT', ZLIB_HEAD),
      ...bands.flatMap((band) => band.parts),
      pngChunk('IDAT', end),
      pngChunk('IEND', new Uint8Array()),
    ]
    return new Blob(parts, { type: 'image/png' })
  },
}

const DEFLATE = 0

/** A profile by its name (section 11.3.2.3). */
function namedProfile(name: string, profile: Uint8Array): Uint8Array {
  return joinBytes([Uint8Array.from([...name, '\0'], (letter) => letter.charCodeAt(0)), Uint8Array.of(DEFLATE), stored(profile)])
}

/** A few bytes as a zlib stream of one block that is not compressed (RFC 1951, 3.2.4). */
function stored(bytes: Uint8Array): Uint8Array {
  const [low, high] = [bytes.length & 0xff, bytes.length >> 8]
  const end = new Uint8Array(4)
  new DataView(end.buffer).setUint32(0, checksumOf(bytes).adler)
  return joinBytes([ZLIB_HEAD, Uint8Array.of(1, low, high, 0xff - low, 0xff - high), bytes, end])
}
