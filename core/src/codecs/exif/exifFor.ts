import { colourSpaces, type ColourSpace } from '../../colour/colourSpace'
import type { Size } from '../../planes/grid'

const [ASCII, SHORT, LONG] = [2, 3, 4] as const
/** Bytes of a value of each type (TIFF 6.0, section 2). */
const VALUE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8]
const ENTRY = 12
/** A directory with more entries than this is taken for broken. */
const MOST_ENTRIES = 500

const tags = {
  orientation: 274,
  software: 305,
  exif: 34665,
  place: 34853,
  colourSpace: 0xa001,
  width: 0xa002,
  height: 0xa003,
  picture: 513,
  pictureBytes: 514,
} as const
const UPRIGHT = 1
const SOFTWARE = 'Welkinar'

interface Entry {
  readonly tag: number
  /** Its twelve bytes. */
  readonly bytes: Uint8Array
}

/**
 * The EXIF block of a file that we write: what the camera said, but for what is true no more. The picture stands upright and has its own size, the small picture in the block is gone, and the software is Welkinar.
 * @param source the block of the photo; one that cannot be read is left out
 * @param keepsPlace whether it may say where the photo was taken
 * @param space of the codes of the file
 */
export function exifFor(
  source: Uint8Array | undefined,
  size: Size,
  keepsPlace: boolean,
  space: ColourSpace = 'srgb',
): Uint8Array<ArrayBuffer> {
  const block = new Block(source && isBlock(source) ? source : Uint8Array.of(0x49, 0x49, 42, 0, 0, 0, 0, 0))
  const { entries, next } = block.directoryAt(block.first)
  const exif = entries.find(({ tag }) => tag === tags.exif)
  if (exif) block.setPicture(block.valueOf(exif), size, space)
  const place = entries.find(({ tag }) => tag === tags.place)
  if (place && !keepsPlace) block.wipe(block.valueOf(place))
  block.wipePicture(next)
  const gone: readonly number[] = [tags.orientation, tags.software, ...(keepsPlace ? [] : [tags.place])]
  return block.withFirst(entries.filter(({ tag }) => !gone.includes(tag)))
}

function isBlock(bytes: Uint8Array): boolean {
  const [a, b, c, d] = bytes
  return bytes.length >= 8 && ((a === 0x49 && b === 0x49 && c === 42 && d === 0) || (a === 0x4d && b === 0x4d && c === 0 && d === 42))
}

/** A TIFF without strips, read and changed in place. Whatever its offsets say, nothing outside it is touched, and no directory is followed twice. */
class Block {
  private readonly bytes: Uint8Array<ArrayBuffer>
  private readonly view: DataView
  private readonly isLittle: boolean

  constructor(source: Uint8Array) {
    this.bytes = new Uint8Array(source)
    this.view = new DataView(this.bytes.buffer)
    this.isLittle = source[0] === 0x49
  }

  get first(): number {
    return this.view.getUint32(4, this.isLittle)
  }

  /** The entries of a directory, and where the next one is; none where there is no sound one. */
  directoryAt(at: number): { readonly entries: readonly Entry[]; readonly next: number } {
    if (at < 8 || at + 2 > this.bytes.length) return { entries: [], next: 0 }
    const count = this.view.getUint16(at, this.isLittle)
    const end = at + 2 + ENTRY * count
    if (count > MOST_ENTRIES || end > this.bytes.length) return { entries: [], next: 0 }
    const entries = Array.from({ length: count }, (_, i) => {
      const from = at + 2 + ENTRY * i
      return { tag: this.view.getUint16(from, this.isLittle), bytes: this.bytes.subarray(from, from + ENTRY) }
    })
    return { entries, next: end + 4 <= this.bytes.length ? this.view.getUint32(end, this.isLittle) : 0 }
  }

  /** What stands in the last four bytes of an entry. */
  valueOf({ bytes }: Entry): number {
    return this.viewOf(bytes).getUint32(8, this.isLittle)
  }

  /** Writes size and colour space of the picture into the directory of what the camera said, where it has them. */
  setPicture(directory: number, { width, height }: Size, space: ColourSpace): void {
    for (const { tag, bytes } of this.directoryAt(directory).entries) {
      const view = this.viewOf(bytes)
      if (tag === tags.colourSpace) view.setUint16(8, colourSpaces[space].exifCode, this.isLittle)
      if (tag !== tags.width && tag !== tags.height) continue
      view.setUint16(2, LONG, this.isLittle)
      view.setUint32(4, 1, this.isLittle)
      view.setUint32(8, tag === tags.width ? width : height, this.isLittle)
    }
  }

  /** Overwrites a directory and all its values. */
  wipe(directory: number): void {
    const { entries } = this.directoryAt(directory)
    for (const { bytes } of entries) {
      const view = this.viewOf(bytes)
      const length = (VALUE_BYTES[view.getUint16(2, this.isLittle)] ?? 0) * view.getUint32(4, this.isLittle)
      const at = view.getUint32(8, this.isLittle)
      if (length > 4 && at >= 8) this.bytes.fill(0, at, at + length)
      bytes.fill(0)
    }
  }

  /** Overwrites the small picture that the second directory points to. */
  wipePicture(directory: number): void {
    const { entries } = this.directoryAt(directory)
    const [at, length] = [tags.picture, tags.pictureBytes].map((wanted) => {
      const entry = entries.find(({ tag }) => tag === wanted)
      return entry ? this.valueOf(entry) : 0
    }) as [number, number]
    if (at >= 8) this.bytes.fill(0, at, at + length)
  }

  /** The block with a first directory of these entries, upright and by Welkinar, behind all else; no directory follows it. */
  withFirst(entries: readonly Entry[]): Uint8Array<ArrayBuffer> {
    const text = [...`${SOFTWARE}\0`].map((letter) => letter.charCodeAt(0))
    const at = this.bytes.length + (this.bytes.length % 2)
    const count = entries.length + 2
    const behind = at + 2 + ENTRY * count + 4
    const all = new Uint8Array(behind + text.length)
    const view = new DataView(all.buffer)
    all.set(this.bytes)
    view.setUint32(4, at, this.isLittle)
    view.setUint16(at, count, this.isLittle)
    const made = [...entries, this.entry(tags.orientation, SHORT, 1, UPRIGHT), this.entry(tags.software, ASCII, text.length, behind)]
    made.sort((a, b) => a.tag - b.tag).forEach(({ bytes }, i) => all.set(bytes, at + 2 + ENTRY * i))
    all.set(text, behind)
    return all
  }

  private entry(tag: number, type: number, count: number, value: number): Entry {
    const bytes = new Uint8Array(ENTRY)
    const view = this.viewOf(bytes)
    view.setUint16(0, tag, this.isLittle)
    view.setUint16(2, type, this.isLittle)
    view.setUint32(4, count, this.isLittle)
    if (type === SHORT) view.setUint16(8, value, this.isLittle)
    else view.setUint32(8, value, this.isLittle)
    return { tag, bytes }
  }

  private viewOf(bytes: Uint8Array): DataView {
    return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  }
}
