import { UserProblem } from '../../model/userProblem'
import type { DecodedPixels } from '../decodePixels'
import { noPulse, type Pulse } from '../../photo/pulse'
import { compressions, expanded } from './expand'
import { decodedJpegBlock } from './jpegBlock'
import { pagesOf, readTiff, tags, type TiffDirectory } from './tiffDirectory'
import { SampleRows } from './sampleRows'

/** Photometric interpretations (TIFF 6.0, section 3, and its extensions). */
const [WHITE_IS_ZERO, BLACK_IS_ZERO, RGB, PALETTE, CMYK, YCBCR, CIELAB, ICCLAB] = [0, 1, 2, 3, 5, 6, 8, 9] as const
/** What numbers are; 4 is not said. */
const [WHOLE, SIGNED, FRACTIONS, UNSAID] = [1, 2, 3, 4] as const
/** What an extra sample is: alpha that colours are multiplied by already, and that they are not. */
const [ASSOCIATED, UNASSOCIATED] = [1, 2] as const
const SEPARATE = 2
const MOST_PIXELS = 2e9

/** Decodes a JPEG to interleaved RGBA. */
export type DecodeJpeg = (bytes: Uint8Array) => Promise<DecodedPixels>

/**
 * The first picture of a TIFF file, of 1 to 16 bits a channel: grey, by palette, in red, green and blue, by inks, or CIE Lab; strips or tiles, in either byte order, of 32 or 64 bits.
 * Inks and Lab come as they are, in the channels (`model`).
 * @throws UserProblem without the name of the file, for a kind that cannot be read; Error for broken data
 */
export async function decodeTiff(file: Uint8Array, decodeJpeg: DecodeJpeg, pulse: Pulse = noPulse): Promise<DecodedPixels> {
  const tiff = readTiff(file)
  const [page] = pagesOf(tiff)
  if (!page) throw new Error('There is no picture in the file.')
  const layout = layoutOf(page)
  const { width, height } = layout
  const rows = new SampleRows(layout, tiff.isLittle)
  const compression = page.value(tags.compression) ?? compressions.none
  let isDamaged = false
  for (const block of blocksOf(page, layout, file)) {
    if (compression === compressions.jpeg) {
      const pixels = await decodedJpegBlock(page, block.data, decodeJpeg)
      isDamaged ||= pixels.isDamaged === true
      rows.takePixels(block, pixels)
    } else rows.take(block, await expanded(page, block.data, rows.bytesOf(block), block.width), page.value(tags.predictor) ?? 1)
    pulse()
  }
  return { width, height, isDamaged, ...coloured(page, layout, rows.samples, compression === compressions.jpeg, pulse) }
}

/** How the samples of a picture lie. */
export interface TiffLayout {
  readonly width: number
  readonly height: number
  readonly bits: number
  /** Samples of a pixel. */
  readonly samples: number
  /** Whether each sample has blocks of its own. */
  readonly separate: boolean
}

/** @throws UserProblem for numbers that are none of ours */
function layoutOf(page: TiffDirectory): TiffLayout {
  const [width, height] = [page.value(tags.width) ?? 0, page.value(tags.height) ?? 0]
  if (width < 1 || height < 1 || width * height > MOST_PIXELS) throw new Error(`A picture of ${width} × ${height}.`)
  const all = page.values(tags.bits) ?? [1]
  const bits = Math.max(...all)
  const formats = page.values(tags.sampleFormat) ?? [WHOLE]
  if (formats.includes(FRACTIONS)) throw new UserProblem('it has numbers with a fraction; save it with 16 bits a channel and open that.')
  if (formats.some((format) => format === SIGNED || format > UNSAID))
    throw new UserProblem('it has numbers below zero; save it with 16 bits a channel and open that.')
  if (bits > 16) throw new UserProblem(`it has ${bits} bits a channel; save it with 16 and open that.`)
  if (all.some((one) => one !== bits))
    throw new UserProblem('its channels have different numbers of bits; save it with 8 or 16 and open that.')
  const samples = page.value(tags.samples) ?? all.length
  if (samples < 1 || samples > 64) throw new Error(`A picture of ${samples} channels.`)
  return { width, height, bits, samples, separate: page.value(tags.planar) === SEPARATE && samples > 1 }
}

/** A strip or a tile: where it lies, and its bytes in the file. */
export interface TiffBlock {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  /** The first sample that it holds, and how many. */
  readonly sample: number
  readonly samples: number
  readonly data: Uint8Array
}

function* blocksOf(page: TiffDirectory, { width, height, samples, separate }: TiffLayout, file: Uint8Array): Generator<TiffBlock> {
  const isTiled = page.value(tags.tileOffsets) !== undefined
  const tileWidth = isTiled ? (page.value(tags.tileWidth) ?? width) : width
  const tileHeight = Math.min(
    isTiled ? (page.value(tags.tileHeight) ?? height) : (page.value(tags.rowsPerStrip) ?? height),
    isTiled ? Infinity : height,
  )
  const offsets = page.values(isTiled ? tags.tileOffsets : tags.stripOffsets)
  const lengths = page.values(isTiled ? tags.tileBytes : tags.stripBytes)
  if (!offsets || tileWidth < 1 || tileHeight < 1) throw new Error('There are no strips and no tiles.')
  const [across, down] = [Math.ceil(width / tileWidth), Math.ceil(height / tileHeight)]
  const planes = separate ? samples : 1
  if (offsets.length < across * down * planes)
    throw new Error(`${across * down * planes} strips are needed, and there are ${offsets.length}.`)
  for (let plane = 0; plane < planes; plane++) {
    for (let index = 0; index < across * down; index++) {
      const offset = offsets[plane * across * down + index] ?? 0
      const length = lengths?.[plane * across * down + index] ?? file.length - offset
      if (offset + length > file.length || offset <= 0) throw new Error('A strip lies outside the file.')
      const [x, y] = [(index % across) * tileWidth, Math.floor(index / across) * tileHeight]
      yield {
        x,
        y,
        width: tileWidth,
        height: isTiled ? tileHeight : Math.min(tileHeight, height - y),
        sample: plane,
        samples: separate ? 1 : samples,
        data: file.subarray(offset, offset + length),
      }
    }
  }
}

/** Samples as interleaved codes of four channels. */
function coloured(
  page: TiffDirectory,
  { width, height, bits, samples: perPixel }: TiffLayout,
  samples: Uint8Array | Uint16Array,
  isJpeg: boolean,
  pulse: Pulse,
): Pick<DecodedPixels, 'data' | 'model'> {
  const interpretation = page.value(tags.photometric) ?? (perPixel < 3 ? BLACK_IS_ZERO : RGB)
  const deep = bits > 8 || interpretation === PALETTE
  const count = width * height
  const data = deep ? new Uint16Array(4 * count) : new Uint8ClampedArray(4 * count)
  const [full, most] = [deep ? 65535 : 255, 2 ** bits - 1]
  const scale = full / most
  const colours = coloursOf(interpretation, isJpeg)
  if (perPixel < colours) throw new Error(`${colours} channels are needed, and there are ${perPixel}.`)
  const alphaAt = colours < 4 ? alphaOf(page, colours) : undefined
  const palette = interpretation === PALETTE ? page.values(tags.colourMap) : undefined
  if (interpretation === PALETTE && !palette) throw new Error('There is no palette.')
  const isLab = interpretation === CIELAB
  for (let i = 0; i < count; i++) {
    const at = perPixel * i
    if (palette) for (let k = 0; k < 3; k++) data[4 * i + k] = palette[k * (most + 1) + (samples[at] ?? 0)] ?? 0
    else if (colours === 1) {
      const code = samples[at] ?? 0
      const grey = Math.round((interpretation === WHITE_IS_ZERO ? most - code : code) * scale)
      data[4 * i] = data[4 * i + 1] = data[4 * i + 2] = grey
    } else for (let k = 0; k < colours; k++) data[4 * i + k] = Math.round((samples[at + k] ?? 0) * scale)
    // The signs of a and b stand in the highest bit: here the middle is zero.
    if (isLab) for (let k = 1; k < 3; k++) data[4 * i + k] = ((data[4 * i + k] ?? 0) + (full + 1) / 2) & full
    if (colours < 4) data[4 * i + 3] = alphaAt === undefined ? full : Math.round((samples[at + alphaAt.sample] ?? 0) * scale)
    if (alphaAt?.multiplied) divideByAlpha(data, 4 * i, full)
    if (i % PULSE_EVERY === 0) pulse()
  }
  const model = interpretation === CMYK ? 'cmyk' : isLab || interpretation === ICCLAB ? 'lab' : undefined
  return model ? { data, model } : { data }
}

const PULSE_EVERY = 4e6

/** How many channels colours have. @throws UserProblem for a kind that cannot be read */
function coloursOf(interpretation: number, isJpeg: boolean): number {
  if (interpretation === WHITE_IS_ZERO || interpretation === BLACK_IS_ZERO || interpretation === PALETTE) return 1
  if (interpretation === RGB || interpretation === CIELAB || interpretation === ICCLAB || (interpretation === YCBCR && isJpeg)) return 3
  if (interpretation === CMYK) return 4
  throw new UserProblem(
    interpretation === YCBCR
      ? 'its colours are kept as luma and differences; save it as RGB and open that.'
      : 'it is not of red, green and blue; save it as RGB (sRGB) and open that.',
  )
}

function alphaOf(page: TiffDirectory, colours: number): { readonly sample: number; readonly multiplied: boolean } | undefined {
  const extras = page.values(tags.extraSamples) ?? []
  const index = extras.findIndex((kind) => kind === ASSOCIATED || kind === UNASSOCIATED)
  return index < 0 ? undefined : { sample: colours + index, multiplied: extras[index] === ASSOCIATED }
}

function divideByAlpha(data: Uint8ClampedArray | Uint16Array, at: number, full: number): void {
  const alpha = data[at + 3] ?? 0
  if (alpha === 0 || alpha === full) return
  for (let k = 0; k < 3; k++) data[at + k] = Math.min(full, Math.round(((data[at + k] ?? 0) * full) / alpha))
}
