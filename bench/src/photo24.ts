import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { instantiate } from '@welkinar/kernels'
import type { Kernels } from '../../core/src/graph/operation'
import { sharedBuffer, type PhotoData } from '../../core/src/photo/photoData'
import { withReductions } from '../../core/src/photo/reducePhoto'
import type { Size } from '../../core/src/planes/grid'

/** A 24-megapixel test picture: sky-like gradient, blocks, texture and noise. RGBA. */
export const WIDTH = 6000
export const HEIGHT = 4000

export function testPixels(): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint8ClampedArray(WIDTH * HEIGHT * 4)
  let state = 7
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      state = (Math.imul(state, 1664525) + 1013904223) | 0
      const block = (Math.floor(x / 700) + Math.floor(y / 500)) % 3 === 0 ? -45 : 0
      const tone = 70 + (110 * y) / HEIGHT + block + 12 * Math.sin(x / 9) + ((state >>> 24) - 128) / 12
      const i = 4 * (y * WIDTH + x)
      pixels[i] = tone * 0.85
      pixels[i + 1] = tone
      pixels[i + 2] = tone * 1.15
      pixels[i + 3] = 255
    }
  }
  return pixels
}

/** The test picture as the engine holds it, with its reductions, and the kernels of one thread. */
export interface BenchPhoto {
  readonly kernels: Kernels
  readonly photo: PhotoData
  readonly pixels: Uint8ClampedArray<ArrayBuffer>
}

export async function benchPhoto(
  pixels: Uint8ClampedArray<ArrayBuffer>,
  { width, height }: Size = { width: WIDTH, height: HEIGHT },
): Promise<BenchPhoto> {
  const path = createRequire(import.meta.url).resolve('@welkinar/kernels/kernels.wasm')
  const kernels = await instantiate(await WebAssembly.compile(await readFile(path)), { env: {} })
  const shared = sharedBuffer(pixels.length)
  new Uint8ClampedArray(shared).set(pixels)
  return { kernels, photo: withReductions(kernels, 'bench', { width, height, format: 'rgba8', pixels: shared }), pixels }
}
