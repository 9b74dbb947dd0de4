import { UserProblem } from '../../model/userProblem'
import type { DecodedPixels } from '../decodePixels'
import type { TiffBlock, TiffLayout } from './decodeTiff'

/** Differences along rows (TIFF 6.0, section 14), and those of numbers with a fraction. */
const [NONE, ALONG_ROWS] = [1, 2] as const

/** The samples of a picture, interleaved, put together from its strips or tiles. */
export class SampleRows {
  readonly samples: Uint8Array | Uint16Array

  constructor(
    private readonly layout: TiffLayout,
    private readonly isLittle: boolean,
  ) {
    const { width, height, bits, samples } = layout
    this.samples = bits > 8 ? new Uint16Array(width * height * samples) : new Uint8Array(width * height * samples)
  }

  /** Bytes of a block when it is expanded: rows begin at whole bytes. */
  bytesOf({ width, height, samples }: TiffBlock): number {
    return this.rowBytes(width, samples) * height
  }

  /** @throws UserProblem for differences that cannot be read */
  take(block: TiffBlock, bytes: Uint8Array, predictor: number): void {
    if (predictor !== NONE && predictor !== ALONG_ROWS)
      throw new UserProblem('its numbers are kept in a way that cannot be read; save it without compression.')
    const { width, height, samples } = block
    const row = new Uint16Array(width * samples)
    const rowBytes = this.rowBytes(width, samples)
    const most = 2 ** this.layout.bits - 1
    for (let y = 0; y < height && block.y + y < this.layout.height; y++) {
      this.unpack(bytes.subarray(y * rowBytes, (y + 1) * rowBytes), row)
      if (predictor === ALONG_ROWS) for (let i = samples; i < row.length; i++) row[i] = ((row[i] ?? 0) + (row[i - samples] ?? 0)) & most
      this.put(block, y, row)
    }
  }

  /** A block that was decoded to pixels. */
  takePixels(block: TiffBlock, { width, height, data }: DecodedPixels): void {
    const row = new Uint16Array(block.width * block.samples)
    for (let y = 0; y < Math.min(height, block.height) && block.y + y < this.layout.height; y++) {
      for (let x = 0; x < Math.min(width, block.width); x++) {
        for (let k = 0; k < block.samples; k++) row[x * block.samples + k] = data[4 * (y * width + x) + Math.min(k, 3)] ?? 0
      }
      this.put(block, y, row)
    }
  }

  private rowBytes(width: number, samples: number): number {
    return Math.ceil((width * samples * this.layout.bits) / 8)
  }

  private put({ x, y, width, sample, samples }: TiffBlock, row: number, values: Uint16Array): void {
    const { width: all, samples: perPixel, separate } = this.layout
    const start = ((y + row) * all + x) * perPixel
    const columns = Math.min(width, all - x)
    if (!separate) this.samples.set(values.subarray(0, columns * samples), start)
    else for (let i = 0; i < columns; i++) this.samples[start + i * perPixel + sample] = values[i] ?? 0
  }

  private unpack(bytes: Uint8Array, row: Uint16Array): void {
    const { bits } = this.layout
    if (bits === 8) return row.set(bytes.subarray(0, row.length))
    if (bits === 16) {
      const [low, high] = this.isLittle ? [0, 1] : [1, 0]
      for (let i = 0; i < row.length; i++) row[i] = (bytes[2 * i + low] ?? 0) | ((bytes[2 * i + high] ?? 0) << 8)
      return
    }
    // The highest bit comes first.
    let [held, count, at] = [0, 0, 0]
    for (let i = 0; i < row.length; i++) {
      while (count < bits) {
        held = ((held << 8) | (bytes[at++] ?? 0)) & 0xffffff
        count += 8
      }
      count -= bits
      row[i] = (held >>> count) & ((1 << bits) - 1)
    }
  }
}
