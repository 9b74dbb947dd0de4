import { profileOf } from '../../../colour/colourSpace'
import { BAND_ROWS, type FileFormat } from '../fileFormat'

// Tag Image File Format, revision 6.0 (1992), with the deflate compression of its supplement of 2002. The lower byte comes first.

const HEAD = Uint8Array.of(0x49, 0x49, 42, 0)
/** Types of values: bytes of text, 16 and 32 bits, bytes of anything. */
const [ASCII, SHORT, LONG, OTHER] = [2, 3, 4, 7] as const
const DEFLATE = 8
const RGB = 2
const DIFFERENCES_ALONG_ROWS = 2
const SOFTWARE = 'Welkinar'

interface Entry {
  readonly tag: number
  readonly type: keyof typeof bytesOf
  readonly values: readonly number[]
}

/** TIFF, 6.0: a strip for each band. */
export const tiffFormat: FileFormat = {
  name: 'TIFF',
  endings: ['tif', 'tiff'],
  mediaType: 'image/tiff',
  hint: 'Every pixel as computed, for programs of print and archive.',
  carriesExif: false,
  hasQuality: false,
  depths: [8, 16],
  // Offsets have 32 bits (TIFF 6.0, section 2); what cannot be compressed gets a little larger.
  limits: { mostBytes: 4.2e9 },
  join(bands, { width, height }, { depth, space = 'srgb' }) {
    const strips = bands.flatMap(({ parts }) => parts)
    const sizes = strips.map(({ size }) => size)
    const offsets = sizes.map((_, i) => sizes.slice(0, i).reduce((sum, size) => sum + size, HEAD.length + 4))
    const end = offsets.length > 0 ? (offsets.at(-1) ?? 0) + (sizes.at(-1) ?? 0) : HEAD.length + 4
    // Directories begin at even bytes.
    const directory = end + (end % 2)
    const entries: Entry[] = [
      { tag: 256, type: LONG, values: [width] },
      { tag: 257, type: LONG, values: [height] },
      { tag: 258, type: SHORT, values: [depth, depth, depth] },
      { tag: 259, type: SHORT, values: [DEFLATE] },
      { tag: 262, type: SHORT, values: [RGB] },
      { tag: 273, type: LONG, values: offsets },
      { tag: 274, type: SHORT, values: [1] },
      { tag: 277, type: SHORT, values: [3] },
      { tag: 278, type: LONG, values: [BAND_ROWS] },
      { tag: 279, type: LONG, values: sizes },
      { tag: 284, type: SHORT, values: [1] },
      { tag: 305, type: ASCII, values: [...SOFTWARE, '\0'].map((letter) => letter.charCodeAt(0)) },
      { tag: 317, type: SHORT, values: [DIFFERENCES_ALONG_ROWS] },
      // ICC.1:2022, annex B.5.
      { tag: 34675, type: OTHER, values: [...profileOf(space)] },
    ]
    const start = new Uint8Array(4)
    new DataView(start.buffer).setUint32(0, directory, true)
    return new Blob([HEAD, start, ...strips, new Uint8Array(end % 2), directoryOf(entries, directory)], { type: 'image/tiff' })
  },
}

const bytesOf = { [ASCII]: 1, [SHORT]: 2, [LONG]: 4, [OTHER]: 1 } as const

/** An image file directory, with the values that do not fit into their entries behind it. @param at where in the file it begins */
function directoryOf(entries: readonly Entry[], at: number): Uint8Array<ArrayBuffer> {
  const own = 2 + 12 * entries.length + 4
  const lengths = entries.map(({ type, values }) => bytesOf[type] * values.length)
  const beyond = lengths.filter((length) => length > 4).reduce((sum, length) => sum + length + (length % 2), 0)
  const block = new Uint8Array(own + beyond)
  const view = new DataView(block.buffer)
  view.setUint16(0, entries.length, true)
  let next = own
  entries.forEach(({ tag, type, values }, i) => {
    const entry = 2 + 12 * i
    const length = lengths[i] ?? 0
    view.setUint16(entry, tag, true)
    view.setUint16(entry + 2, type, true)
    view.setUint32(entry + 4, values.length, true)
    const to = length > 4 ? next : entry + 8
    if (length > 4) {
      view.setUint32(entry + 8, at + next, true)
      next += length + (length % 2)
    }
    values.forEach((value, k) => {
      if (type === LONG) view.setUint32(to + 4 * k, value, true)
      else if (type === SHORT) view.setUint16(to + 2 * k, value, true)
      else block[to + k] = value
    })
  })
  return block
}
