import { UserProblem } from '../../../model/userProblem'
import { pngChunk } from './pngChunk'

// A PNG of several frames (W3C PNG, third edition, 4.9 and 11.3.6): the first is what every reader shows.

const SIGNATURE_LENGTH = 8
/** Whole pictures one after another: none is laid over the one before. */
const [KEEP, REPLACE] = [0, 0]
const FOR_EVER = 0

interface Chunk {
  readonly name: string
  readonly data: Uint8Array
  /** With its length and its checksum. */
  readonly whole: Uint8Array
}

function chunksOf(png: Uint8Array): Chunk[] {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength)
  const chunks: Chunk[] = []
  for (let at = SIGNATURE_LENGTH; at + 12 <= png.length;) {
    const length = view.getUint32(at)
    const name = String.fromCharCode(...png.subarray(at + 4, at + 8))
    chunks.push({ name, data: png.subarray(at + 8, at + 8 + length), whole: png.subarray(at, at + 12 + length) })
    at += 12 + length
  }
  return chunks
}

/** Puts PNG files of one size, depth and space together as the frames of one that moves without an end. */
export class MovingPng {
  private readonly parts: Blob[] = []
  private numbers = 0
  private added = 0

  /** @param frames how many will be added @param rate frames a second, at most 100 */
  constructor(
    private readonly frames: number,
    private readonly rate: number,
  ) {}

  /** Adds the file of the next frame. @throws UserProblem if there are more than was said */
  add(png: Uint8Array): void {
    if (this.added >= this.frames) throw new UserProblem(`There are more than ${this.frames} frames.`)
    const chunks = chunksOf(png)
    const isFirst = this.added++ === 0
    const data = chunks.filter(({ name }) => name === 'IDAT')
    const head = chunks.find(({ name }) => name === 'IHDR')
    const bytes: Uint8Array[] = []
    if (isFirst) {
      bytes.push(png.subarray(0, SIGNATURE_LENGTH))
      for (const { name, whole } of chunks.slice(
        0,
        chunks.findIndex(({ name: one }) => one === 'IDAT'),
      )) {
        bytes.push(whole)
        if (name === 'IHDR') bytes.push(this.control())
      }
    }
    if (head) bytes.push(this.frameControl(head.data))
    for (const { data: part, whole } of data) bytes.push(isFirst ? whole : this.frameData(part))
    this.parts.push(new Blob(bytes as Uint8Array<ArrayBuffer>[]))
  }

  /** The file. @throws Error if frames are missing */
  finish(): Blob {
    if (this.added !== this.frames) throw new Error(`${this.added} of ${this.frames} frames were added.`)
    return new Blob([...this.parts, pngChunk('IEND', new Uint8Array())], { type: 'image/apng' })
  }

  private control(): Uint8Array {
    const data = new Uint8Array(8)
    const view = new DataView(data.buffer)
    view.setUint32(0, this.frames)
    view.setUint32(4, FOR_EVER)
    return pngChunk('acTL', data)
  }

  private frameControl(head: Uint8Array): Uint8Array {
    const data = new Uint8Array(26)
    const view = new DataView(data.buffer)
    view.setUint32(0, this.numbers++)
    // Width and height.
    data.set(head.subarray(0, 8), 4)
    // How long it stands: a fraction of a second.
    view.setUint16(20, 100)
    view.setUint16(22, Math.round(100 * this.rate))
    data.set([KEEP, REPLACE], 24)
    return pngChunk('fcTL', data)
  }

  /** The data of a frame that is not the first: with a number, in a chunk of its own name. */
  private frameData(part: Uint8Array): Uint8Array {
    const data = new Uint8Array(part.length + 4)
    new DataView(data.buffer).setUint32(0, this.numbers++)
    data.set(part, 4)
    return pngChunk('fdAT', data)
  }
}
