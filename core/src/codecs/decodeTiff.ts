import { fromArrayBuffer, type TypedArray } from 'geotiff'
import { UserProblem } from '../model/userProblem'
import type { DecodedPixels } from './decodePixels'

/** Photometric interpretations (TIFF 6.0, section 3): grey whose 0 is white or black, colours, a palette. */
const [WHITE_IS_ZERO, BLACK_IS_ZERO, RGB, PALETTE] = [0, 1, 2, 3] as const
const WHOLE_NUMBERS = 1
/** What an extra sample is: alpha that colours are multiplied by already, and that they are not. */
const [ASSOCIATED, UNASSOCIATED] = [1, 2] as const

/**
 * The first picture of a TIFF file, of 1 to 16 bits a channel, grey, by palette or in colours; strips or tiles, in either byte order, compressed or not (by geotiff).
 * @throws UserProblem without the name of the file, for a kind that cannot be read; Error for broken data
 */
export async function decodeTiff(file: ArrayBuffer): Promise<DecodedPixels> {
  const tiff = await fromArrayBuffer(file)
  const image = await tiff.getImage(0)
  const value = (name: Parameters<typeof image.fileDirectory.getValue>[0]): unknown => image.fileDirectory.getValue(name)
  const [width, height] = [image.getWidth(), image.getHeight()]
  const interpretation = Number(value('PhotometricInterpretation') ?? BLACK_IS_ZERO)
  const bits = Math.max(
    ...[...((value('BitsPerSample') as ArrayLike<number> | undefined) ? Array.from(value('BitsPerSample') as ArrayLike<number>) : [1])],
  )
  const formats = Array.from((value('SampleFormat') as ArrayLike<number> | undefined) ?? [WHOLE_NUMBERS])
  if (formats.some((format) => format !== WHOLE_NUMBERS))
    throw new UserProblem('it has numbers with a fraction; save it with 16 bits a channel and open that.')
  if (bits > 16) throw new UserProblem(`it has ${bits} bits a channel; save it with 16 and open that.`)
  if (interpretation > PALETTE) throw new UserProblem('it is not of red, green and blue; save it as RGB (sRGB) and open that.')
  const channels = (await image.readRasters()) as unknown as readonly TypedArray[]
  const most = 2 ** bits - 1
  const deep = bits > 8 || interpretation === PALETTE
  const data = deep ? new Uint16Array(width * height * 4) : new Uint8ClampedArray(width * height * 4)
  const full = deep ? 65535 : 255
  const extras = Array.from((value('ExtraSamples') as ArrayLike<number> | undefined) ?? [])
  const colours = interpretation === RGB ? 3 : 1
  const alphaAt = extras.findIndex((kind) => kind === ASSOCIATED || kind === UNASSOCIATED)
  const alpha = alphaAt < 0 ? undefined : channels[colours + alphaAt]
  const palette = interpretation === PALETTE ? ((await image.fileDirectory.loadValue('ColorMap')) as ArrayLike<number>) : undefined
  for (let i = 0; i < width * height; i++) {
    const covered = alpha ? (alpha[i] ?? 0) / most : 1
    for (let k = 0; k < 3; k++) {
      const code = channels[colours === 3 ? k : 0]?.[i] ?? 0
      const part = palette ? (palette[k * 2 ** bits + code] ?? 0) / 65535 : (interpretation === WHITE_IS_ZERO ? most - code : code) / most
      data[4 * i + k] = Math.round(full * (extras[alphaAt] === ASSOCIATED && covered > 0 ? Math.min(1, part / covered) : part))
    }
    data[4 * i + 3] = Math.round(full * covered)
  }
  return { width, height, data }
}
