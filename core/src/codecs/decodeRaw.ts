import createLibRaw from 'libraw-wasm/dist/libraw.js'
import type { ColourSpace } from '../colour/colourSpace'
import { encodedOf } from '../colour/hex'
import { UserProblem } from '../model/userProblem'
import type { LoadCodec } from './codecModules'
import type { DecodedPixels } from './decodePixels'

/** 16 bits, the white balance of the camera, its exposure as it is, and demosaicing by AHD. */
const SETTINGS = { outputBps: 16, useCameraWb: true, noAutoBright: true, adjustMaximumThr: 0, userQual: 3 } as const
const MOST = 65535
const MOST_MEGAPIXELS = 240

/** The primaries as LibRaw numbers them; both with the white of D65. */
const PRIMARIES: Readonly<Record<ColourSpace, number>> = { srgb: 1, displayP3: 7 }

interface RawOptions {
  /** At half the size, in a fraction of the time: each four places of the mosaic are one pixel. */
  readonly half?: boolean
  /** sRGB without it. */
  readonly space?: ColourSpace | undefined
}

/**
 * A raw file of a camera by LibRaw: demosaiced, in the white balance of the camera, encoded with 16 bits a channel, upright.
 * @throws UserProblem without the name of the file, for one that LibRaw cannot read
 */
export async function decodeRaw(
  bytes: Uint8Array,
  load: LoadCodec,
  { half = false, space = 'srgb' }: RawOptions = {},
): Promise<DecodedPixels> {
  const wasm = await load('raw')
  // One for each file: it takes hundreds of megabytes, and gives them back only when it is let go itself.
  const { LibRaw } = await createLibRaw({
    instantiateWasm(imports, receive) {
      const instance = new WebAssembly.Instance(wasm, imports)
      receive(instance, wasm)
      return instance.exports
    },
    print: () => undefined,
    printErr: () => undefined,
  })
  const raw = new LibRaw()
  try {
    raw.open(bytes, { ...SETTINGS, outputColor: PRIMARIES[space], halfSize: half })
    const announced = raw.metadata(false)
    const megapixels = (announced.width * announced.height) / 1e6
    if (megapixels > MOST_MEGAPIXELS)
      throw new UserProblem(`it has ${Math.round(megapixels)} megapixels; at most ${MOST_MEGAPIXELS} can be opened.`)
    const { width, height, colors, data } = raw.imageData()
    if (!(data instanceof Uint16Array) || data.length !== width * height * colors) throw new Error('LibRaw gave no picture.')
    return { width, height, data: encoded(data, colors, width * height) }
  } catch (error) {
    if (error instanceof UserProblem) throw error
    throw new UserProblem(
      'it is a raw file that cannot be read: damaged, or of a camera that is not known. Develop it first and open the JPEG, PNG or TIFF.',
    )
  } finally {
    raw.delete()
  }
}

/** Interleaved RGBA, encoded by the curve of sRGB. LibRaw gives the curve of ITU-R BT.709, in steps that are fine enough to be encoded anew. */
function encoded(data: Uint16Array, colours: number, count: number): Uint16Array {
  const table = Uint16Array.from({ length: MOST + 1 }, (_, code) => Math.round(MOST * encodedOf(linearOfVideo(code / MOST))))
  const out = new Uint16Array(count * 4)
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < 3; k++) out[4 * i + k] = table[data[colours * i + (colours > 2 ? k : 0)] ?? 0] ?? 0
    out[4 * i + 3] = MOST
  }
  return out
}

/** Linear light of a tone by the curve of ITU-R BT.709, as LibRaw continues it: slope 4.5, power 0.45. */
function linearOfVideo(tone: number): number {
  return tone < 4.5 * KNEE ? tone / 4.5 : Math.pow((tone + OFFSET) / (1 + OFFSET), 1 / 0.45)
}

const OFFSET = 0.099
const KNEE = 0.018
