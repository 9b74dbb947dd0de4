/** Tags of the directories of a TIFF (TIFF 6.0; ICC.1:2022, annex B.3 for the profile). */
export const tags = {
  subfile: 254,
  width: 256,
  height: 257,
  bits: 258,
  compression: 259,
  photometric: 262,
  fillOrder: 266,
  stripOffsets: 273,
  orientation: 274,
  samples: 277,
  rowsPerStrip: 278,
  stripBytes: 279,
  planar: 284,
  faxOptions: 292,
  predictor: 317,
  colourMap: 320,
  tileWidth: 322,
  tileHeight: 323,
  tileOffsets: 324,
  tileBytes: 325,
  inkSet: 332,
  extraSamples: 338,
  sampleFormat: 339,
  jpegTables: 347,
  profile: 34675,
} as const

/** Bytes of a value of each type (TIFF 6.0, section 2; BigTIFF). */
const VALUE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8, 4, 0, 0, 8, 8, 8] as const
const [SIGNED_BYTE, SHORT, SIGNED_SHORT, LONG, SIGNED_LONG, IFD] = [6, 3, 8, 4, 9, 13] as const
const EIGHT_BYTES: readonly number[] = [16, 17, 18]
const BIG_ENDIAN = 0x4d
const BIG_TIFF = 43
/** A file with more pictures than this points to itself, or is no photo. */
const MOST_PAGES = 1000
/** A directory with more entries than this is taken for broken. */
const MOST_ENTRIES = 4096

/** One directory of a TIFF: a picture, or a smaller copy of one. */
export interface TiffDirectory {
  /** The numbers of a tag; undefined if it is not there, or lies outside the file. */
  values(tag: number): readonly number[] | undefined
  /** Its first number. */
  value(tag: number): number | undefined
  /** Its bytes as they stand in the file. */
  bytes(tag: number): Uint8Array | undefined
}

/** A TIFF or BigTIFF: its directories in their order, as far as they are whole. */
export interface TiffFile {
  readonly isLittle: boolean
  readonly directories: readonly TiffDirectory[]
}

/** The directories of a TIFF; none if it is not one. */
export function readTiff(file: Uint8Array): TiffFile {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength)
  const isLittle = file[0] !== BIG_ENDIAN
  if (file.length < 16) return { isLittle, directories: [] }
  const isBig = view.getUint16(2, isLittle) === BIG_TIFF
  const reader = new Reader(file, view, isLittle, isBig)
  const directories: TiffDirectory[] = []
  const seen = new Set<number>()
  for (let at = reader.offset(isBig ? 8 : 4); at > 0 && !seen.has(at) && seen.size < MOST_PAGES;) {
    seen.add(at)
    const found = reader.directory(at)
    if (!found) break
    directories.push(found.directory)
    at = found.next
  }
  return { isLittle, directories }
}

interface Entry {
  readonly type: number
  readonly count: number
  readonly from: number
}

class Reader {
  constructor(
    private readonly file: Uint8Array,
    private readonly view: DataView,
    private readonly isLittle: boolean,
    private readonly isBig: boolean,
  ) {}

  /** An offset, as it stands at a place. */
  offset(at: number): number {
    if (at + (this.isBig ? 8 : 4) > this.file.length) return 0
    return this.isBig ? Number(this.view.getBigUint64(at, this.isLittle)) : this.view.getUint32(at, this.isLittle)
  }

  directory(at: number): { readonly directory: TiffDirectory; readonly next: number } | undefined {
    const [head, size, room] = this.isBig ? [8, 20, 8] : [2, 12, 4]
    if (at + head > this.file.length) return undefined
    const count = this.isBig ? this.offset(at) : this.view.getUint16(at, this.isLittle)
    if (count > MOST_ENTRIES) return undefined
    const entries = new Map<number, Entry>()
    for (let i = 0; i < count && at + head + size * (i + 1) <= this.file.length; i++) {
      const entry = at + head + size * i
      const type = this.view.getUint16(entry + 2, this.isLittle)
      const length = this.isBig ? this.offset(entry + 4) : this.view.getUint32(entry + 4, this.isLittle)
      const bytes = (VALUE_BYTES[type] ?? 0) * length
      const from = bytes > room ? this.offset(entry + size - room) : entry + size - room
      if (bytes > 0 && from + bytes <= this.file.length)
        entries.set(this.view.getUint16(entry, this.isLittle), { type, count: length, from })
    }
    const directory: TiffDirectory = {
      values: (tag) => this.numbers(entries.get(tag)),
      value: (tag) => this.numbers(entries.get(tag), 1)?.[0],
      bytes: (tag) => {
        const entry = entries.get(tag)
        return entry && this.file.subarray(entry.from, entry.from + entry.count * (VALUE_BYTES[entry.type] ?? 0))
      },
    }
    return { directory, next: this.offset(at + head + size * count) }
  }

  private numbers(entry: Entry | undefined, most = Infinity): readonly number[] | undefined {
    if (!entry) return undefined
    const { type, count, from } = entry
    const size = VALUE_BYTES[type] ?? 1
    return Array.from({ length: Math.min(count, most) }, (_, i) => this.number(type, from + i * size))
  }

  private number(type: number, at: number): number {
    const { view, isLittle } = this
    if (EIGHT_BYTES.includes(type)) return Number(view.getBigUint64(at, isLittle))
    if (type === SHORT) return view.getUint16(at, isLittle)
    if (type === SIGNED_SHORT) return view.getInt16(at, isLittle)
    if (type === LONG || type === IFD) return view.getUint32(at, isLittle)
    if (type === SIGNED_LONG) return view.getInt32(at, isLittle)
    return type === SIGNED_BYTE ? view.getInt8(at) : view.getUint8(at)
  }
}

/** Bit 0 of the kind of a picture: it is a smaller copy of another one. */
const REDUCED = 1

/** The pictures of a file in their order, without smaller copies of others. */
export function pagesOf({ directories }: TiffFile): readonly TiffDirectory[] {
  const whole = directories.filter((directory) => directory.value(tags.width) !== undefined)
  const pages = whole.filter((directory) => ((directory.value(tags.subfile) ?? 0) & REDUCED) === 0)
  return pages.length > 0 ? pages : whole
}
