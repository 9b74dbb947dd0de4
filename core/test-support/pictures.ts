import { Evaluator, type Keep } from '../src/graph/evaluator'
import type { GraphNode } from '../src/graph/node'
import type { Kernels } from '../src/graph/operation'
import { sharedBuffer, type PhotoData, type PhotoLevel } from '../src/photo/photoData'
import { withReductions } from '../src/photo/reducePhoto'
import { gridAt, gridBounds, regionOnGrid } from '../src/planes/grid'
import { splitIntoTiles, type Rect } from '../src/planes/rect'
import { renderTile } from '../src/render/renderTile'
import { operations } from '../src/operations/registry'

const CACHE = 128 * 1024 * 1024

/** Numbers 0-1 that repeat for a seed (mulberry32). */
export function randomNumbers(seed: number): () => number {
  let state = seed | 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A made-up photo: sky-like gradient, dark blocks with hard edges, bright spots, texture and noise. RGBA. */
export function samplePixels(width: number, height: number, seed = 1): Uint8ClampedArray {
  const random = randomNumbers(seed)
  const pixels = new Uint8ClampedArray(width * height * 4)
  const blocks = Array.from({ length: 6 }, () => ({
    x: random() * width,
    y: random() * height,
    w: 0.15 * width * random(),
    h: 0.4 * height * random(),
    v: random() * 60,
  }))
  const lights = Array.from({ length: 4 }, () => ({ x: random() * width, y: random() * height, r: 0.02 * width * (0.5 + random()) }))
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x)
      let [red, green, blue] = [40 + (120 * y) / height, 60 + (90 * y) / height, 110 + (40 * y) / height]
      for (const { x: bx, y: by, w, h, v } of blocks)
        if (x >= bx && x < bx + w && y >= by && y < by + h) [red, green, blue] = [v, v * 0.9, v * 0.8]
      for (const light of lights) {
        const glow = 200 * Math.exp(-((x - light.x) ** 2 + (y - light.y) ** 2) / (2 * light.r ** 2))
        red += glow
        green += 0.8 * glow
        blue += 0.4 * glow
      }
      const texture = 14 * Math.sin(x * 0.7 + 3 * Math.sin(y * 0.13)) + 16 * (random() - 0.5)
      pixels.set([red + texture, green + texture, blue + texture, 255], i)
    }
  }
  return pixels
}

/** Photo data with its reductions, as the application makes them. */
export function photoFrom(kernels: Kernels, id: string, width: number, height: number, rgba: ArrayLike<number>): PhotoData {
  const pixels = sharedBuffer(width * height * 4)
  new Uint8ClampedArray(pixels).set(rgba)
  return withReductions(kernels, id, { width, height, format: 'rgba8', pixels })
}

export function evaluatorFor(kernels: Kernels, ...photos: PhotoData[]): Evaluator {
  const evaluator = new Evaluator({ kernels, operations, store: CACHE })
  photos.forEach((photo) => evaluator.addPhoto(photo))
  return evaluator
}

interface Rendered {
  readonly width: number
  readonly height: number
  readonly pixels: Uint8ClampedArray
}

/** A picture rendered in tiles of one size. */
export function renderAll(
  evaluator: Evaluator,
  node: GraphNode,
  photo: { width: number; height: number },
  scale = 1,
  tileSize = 4096,
  region?: Rect,
  keep?: Keep,
): Rendered {
  const grid = gridAt(photo, scale)
  const rect = region ? regionOnGrid(region, grid) : gridBounds(grid)
  const pixels = new Uint8ClampedArray(rect.width * rect.height * 4)
  for (const tile of splitIntoTiles(rect, tileSize)) {
    const part = renderTile(evaluator, node, grid, tile, keep)
    for (let row = 0; row < tile.height; row++) {
      pixels.set(
        part.subarray(row * tile.width * 4, (row + 1) * tile.width * 4),
        ((tile.y - rect.y + row) * rect.width + tile.x - rect.x) * 4,
      )
    }
  }
  return { width: rect.width, height: rect.height, pixels }
}

/** A picture rendered by an evaluator that knows nothing yet, and that leaves nothing behind in the kernels' memory. */
export function renderFresh(
  kernels: Kernels,
  photos: readonly PhotoData[],
  ...args: Parameters<typeof renderAll> extends [Evaluator, ...infer R] ? R : never
): Rendered {
  const evaluator = evaluatorFor(kernels, ...photos)
  const rendered = renderAll(evaluator, ...args)
  photos.forEach(({ id }) => evaluator.dropPhoto(id))
  return rendered
}

/** Interleaved RGBA of 8 bits of a level of a photo, whatever it is held as. */
export function rgba8Of({ width, height, format, pixels }: PhotoLevel): Uint8ClampedArray {
  if (format === 'rgba8') return new Uint8ClampedArray(pixels)
  const [planes, count] = [new Uint16Array(pixels), width * height]
  return Uint8ClampedArray.from({ length: 4 * count }, (_, i) =>
    i % 4 === 3 ? 255 : Math.round(planes[(i % 4) * count + Math.floor(i / 4)]! / 257),
  )
}
