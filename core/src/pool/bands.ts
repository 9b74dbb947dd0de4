import { BAND_ROWS, type Band } from '../codecs/formats/fileFormat'
import { intersect, type Rect } from '../planes/rect'
import type { BitDepth } from '../render/renderTile'

interface Filling extends Band {
  /** Pixels that are still missing. */
  missing: number
}

/** Puts the tiles of a picture together to bands as wide as it is. It holds those that are begun, no others. */
export class Bands {
  private readonly begun = new Map<number, Filling>()

  private readonly pixelBytes: number

  /** @param whole what the tiles cover in the end, each place once */
  constructor(
    private readonly whole: Rect,
    private readonly depth: BitDepth,
  ) {
    this.pixelBytes = depth / 2
  }

  /**
   * @param pixels of a tile, interleaved RGBA
   * @returns the bands that it completes, with their place from the top
   */
  add(pixels: Uint8ClampedArray<ArrayBuffer>, tile: Rect): { readonly index: number; readonly band: Band }[] {
    const top = tile.y - this.whole.y
    const first = Math.floor(top / BAND_ROWS)
    const last = Math.floor((top + tile.height - 1) / BAND_ROWS)
    return Array.from({ length: last - first + 1 }, (_, i) => first + i).flatMap((index) => {
      const band = this.fill(index, pixels, tile)
      return band.missing > 0 ? [] : [{ index, band: this.take(index, band) }]
    })
  }

  private fill(index: number, pixels: Uint8ClampedArray<ArrayBuffer>, tile: Rect): Filling {
    const { x, width, height, y } = this.whole
    const rows = { x, y: y + index * BAND_ROWS, width, height: Math.min(BAND_ROWS, height - index * BAND_ROWS) }
    const band = this.begun.get(index) ?? {
      width,
      height: rows.height,
      depth: this.depth,
      data: new Uint8ClampedArray(width * rows.height * this.pixelBytes),
      missing: width * rows.height,
    }
    this.begun.set(index, band)
    const part = intersect(rows, tile)
    for (let row = part.y; row < part.y + part.height; row++) {
      const from = (row - tile.y) * tile.width * this.pixelBytes
      band.data.set(pixels.subarray(from, from + tile.width * this.pixelBytes), ((row - rows.y) * width + (tile.x - x)) * this.pixelBytes)
    }
    band.missing -= part.width * part.height
    return band
  }

  private take(index: number, { width, height, depth, data }: Filling): Band {
    this.begun.delete(index)
    return { width, height, depth, data }
  }
}
