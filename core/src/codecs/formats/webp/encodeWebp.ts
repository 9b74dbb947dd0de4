import encode, { init } from '@jsquash/webp/encode.js'
import type { LoadCodec } from '../../codecModules'
import type { EncodedBand, Size } from '../fileFormat'

let ready: Promise<unknown> | undefined

function prepare(load: LoadCodec): Promise<unknown> {
  ready ??= load('webpEncoder').then((module) => (init as (module: WebAssembly.Module) => Promise<unknown>)(module))
  ready.catch(() => (ready = undefined))
  return ready
}

/**
 * A picture as a WebP by libwebp.
 * @param rows of interleaved RGBA of 8 bits, from the top
 * @param quality 1-100
 */
export async function encodeWebp(rows: readonly Blob[], { width, height }: Size, quality: number, load: LoadCodec): Promise<EncodedBand> {
  await prepare(load)
  const data = new Uint8ClampedArray(await new Blob([...rows]).arrayBuffer())
  return { parts: [new Blob([await encode({ data, width, height } as ImageData, { quality })])] }
}
