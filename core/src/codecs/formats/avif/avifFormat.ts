import { profileOf } from '../../../colour/colourSpace'
import { BAND_ROWS, type EncodedBand, type FileFormat, type Size } from '../fileFormat'
import { box, boxesIn, bytesOf, fullBox, joined, LEAST_SIDE, letters } from './boxes'

/** Number of the item that the file is about: a grid of the others. */
const GRID = 1
const FIRST_TILE = 2

/** AVIF: AV1 Image File Format 1.1 in HEIF (ISO/IEC 23008-12). Each band is a picture of its own, and the file a grid of them. */
export const avifFormat: FileFormat = {
  name: 'AVIF',
  endings: ['avif'],
  mediaType: 'image/avif',
  hint: 'The smallest, and the slowest to write. For pages of the web.',
  carriesExif: false,
  hasQuality: true,
  depths: [8],
  // A frame of AV1 is at most so wide (AV1 bitstream specification, 5.5.1), and a grid has at most 256 rows of tiles (ISO/IEC 23008-12, 6.6.2.3.2). libaom encodes no wider band within its memory.
  limits: { mostWidth: 32768, mostHeight: 256 * BAND_ROWS },
  join(bands, size, { space = 'srgb' }) {
    const tiles = bands.map(({ parts }) => ({ parts, length: parts.reduce((sum, { size }) => sum + size, 0) }))
    const head = fileHead(size, { common: headOf(bands), profile: profileOf(space), lengths: tiles.map(({ length }) => length) })
    return new Blob([head, ...tiles.flatMap(({ parts }) => parts)], { type: 'image/avif' })
  },
}

function headOf(bands: readonly EncodedBand[]): Uint8Array {
  const [first] = bands
  if (!first?.head) throw new Error('An AVIF file needs at least one row.')
  return first.head
}

interface Content {
  /** Boxes av1C and colr of every tile. */
  readonly common: Uint8Array
  readonly profile: Uint8Array
  /** Bytes of each tile. */
  readonly lengths: readonly number[]
}

/** All that stands before the first tile. */
function fileHead(size: Size, content: Content): Uint8Array<ArrayBuffer> {
  const type = box('ftyp', letters('avif'), bytesOf(0, 4), letters('avifmif1miaf'))
  // Where the tiles begin depends on how long this is, and that not on where they begin.
  const whole = content.lengths.reduce((sum, length) => sum + length, 0)
  const data = joined([bytesOf(8 + whole, 4), letters('mdat')])
  const begin = type.length + metaOf(size, content, 0).length + data.length
  return joined([type, metaOf(size, content, begin), data])
}

function metaOf({ width, height }: Size, { common, profile, lengths }: Content, begin: number): Uint8Array {
  const items = lengths.map((_, k) => FIRST_TILE + k)
  const grid = joined([bytesOf(0, 1), bytesOf(1, 1), bytesOf(lengths.length - 1, 1), bytesOf(0, 1), bytesOf(width, 4), bytesOf(height, 4)])
  const extent = (from: number, length: number): readonly Uint8Array[] => [bytesOf(1, 2), bytesOf(from, 4), bytesOf(length, 4)]
  let at = begin
  const places = lengths.map((length, k) => {
    at += length
    return joined([bytesOf(FIRST_TILE + k, 2), bytesOf(0, 2), bytesOf(0, 2), ...extent(at - length, length)])
  })
  // The grid itself lies in idat, which is construction method 1.
  const ofGrid = joined([bytesOf(GRID, 2), bytesOf(1, 2), bytesOf(0, 2), ...extent(0, grid.length)])
  const hidden = 1
  const entry = (item: number, kind: string): Uint8Array =>
    fullBox('infe', 2, item === GRID ? 0 : hidden, bytesOf(item, 2), bytesOf(0, 2), letters(kind), bytesOf(0, 1))
  const spatial = (w: number, h: number): Uint8Array => fullBox('ispe', 0, 0, bytesOf(w, 4), bytesOf(h, 4))
  const [config, colour] = boxesIn(common)
  if (!config || !colour) throw new Error('The AVIF encoder did not say how it encodes.')
  const properties = [
    config.bytes,
    colour.bytes,
    box('colr', letters('prof'), profile),
    fullBox('pixi', 0, 0, bytesOf(3, 1), bytesOf(8, 1), bytesOf(8, 1), bytesOf(8, 1)),
    spatial(width, height),
    spatial(Math.max(LEAST_SIDE, width), BAND_ROWS),
  ]
  const [av1C, nclx, prof, pixi, ofAll, ofTile] = [1, 2, 3, 4, 5, 6] as const
  const essential = 0x80
  const associated = (item: number, of: readonly number[]): Uint8Array =>
    joined([bytesOf(item, 2), bytesOf(of.length, 1), ...of.map((index) => bytesOf(index, 1))])
  return fullBox(
    'meta',
    0,
    0,
    fullBox('hdlr', 0, 0, bytesOf(0, 4), letters('pict'), bytesOf(0, 12), bytesOf(0, 1)),
    fullBox('pitm', 0, 0, bytesOf(GRID, 2)),
    fullBox('iloc', 1, 0, bytesOf(0x44, 1), bytesOf(0, 1), bytesOf(1 + lengths.length, 2), ofGrid, ...places),
    fullBox('iinf', 0, 0, bytesOf(1 + lengths.length, 2), entry(GRID, 'grid'), ...items.map((item) => entry(item, 'av01'))),
    fullBox('iref', 0, 0, box('dimg', bytesOf(GRID, 2), bytesOf(lengths.length, 2), ...items.map((item) => bytesOf(item, 2)))),
    box(
      'iprp',
      box('ipco', ...properties),
      fullBox(
        'ipma',
        0,
        0,
        bytesOf(1 + lengths.length, 4),
        associated(GRID, [ofAll, nclx, prof, pixi]),
        ...items.map((item) => associated(item, [ofTile, essential | av1C, nclx, prof, pixi])),
      ),
    ),
    box('idat', grid),
  )
}
