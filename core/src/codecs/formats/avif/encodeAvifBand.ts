import createAvif, { type AVIFModule } from '@jsquash/avif/codec/enc/avif_enc.js'
import type { LoadCodec } from '../../codecModules'
import { BAND_ROWS, type Band, type EncodedBand, type Size } from '../fileFormat'
import { joined, LEAST_SIDE } from './boxes'
import { stillOf } from './stillOf'

let avif: Promise<AVIFModule> | undefined

function prepare(load: LoadCodec): Promise<AVIFModule> {
  avif ??= load('avifEncoder').then((module) =>
    createAvif({
      noInitialRun: true,
      instantiateWasm(imports: WebAssembly.Imports, receive: (instance: WebAssembly.Instance) => void) {
        const instance = new WebAssembly.Instance(module, imports)
        receive(instance)
        return instance.exports
      },
    }),
  )
  avif.catch(() => (avif = undefined))
  return avif
}

/** 0 is the slowest, 10 the fastest; from 8 on the files of photographs hardly get larger. */
const SPEED = 8
/** Every pixel keeps its own colour: with colours of half the size a grid has to have even sides (ISO/IEC 23000-22, 7.3.11.4.2). */
const FULL_COLOUR = 3

/**
 * Rows of an AVIF by libaom: a picture of its own, as high as all bands are. Its head is what all of them have in common.
 * @param quality 1-100
 */
export async function encodeAvifBand({ width, height, data }: Band, quality: number, load: LoadCodec): Promise<EncodedBand> {
  const module = await prepare(load)
  const wide = Math.max(LEAST_SIDE, width)
  const file = module.encode(filledUp(data, { width, height }, wide), wide, BAND_ROWS, {
    quality,
    qualityAlpha: -1,
    denoiseLevel: 0,
    tileRowsLog2: 0,
    tileColsLog2: 0,
    speed: SPEED,
    subsample: FULL_COLOUR,
    chromaDeltaQ: false,
    sharpness: 0,
    enableSharpYUV: false,
    tune: 0,
    bitDepth: 8,
  })
  if (!file) throw new Error('The AVIF encoder gave nothing.')
  const { config, colour, data: picture } = stillOf(file)
  return { head: joined([config, colour]), parts: [new Blob([picture])] }
}

/** Rows up to the height of a band, as wide as wanted; what is missing repeats the border. */
function filledUp(data: Uint8ClampedArray, { width, height }: Size, wide: number): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(wide * BAND_ROWS * 4)
  for (let y = 0; y < BAND_ROWS; y++) {
    const row = data.subarray(Math.min(y, height - 1) * width * 4, (Math.min(y, height - 1) + 1) * width * 4)
    all.set(row, y * wide * 4)
    for (let x = width; x < wide; x++) all.set(row.subarray(-4), (y * wide + x) * 4)
  }
  return all
}
