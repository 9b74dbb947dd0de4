import { seenAt, sightOf } from './camera'
import type { PhotoDefinition } from './photo'
import { length, subtract } from './tracer/vector'

/** What is so far away is sky, metres; the tracer's distances are cut off at 5000. */
const SKY_FROM = 4000
/** A horizon is what is seen at least so far away before the sky. */
const HORIZON_FROM = 150
/** Px over and under the line where the two are looked for. */
const BESIDE = 3

/** What is known of a view because it was traced. Places as parts of width and height. */
export interface Truth {
  /** Height in the middle and slope in degrees, counted as marks count them, and on how much of the width it is seen; null outside the frame. */
  readonly horizon: { readonly y: number; readonly turn: number; readonly seen: number } | null
  /** Lamps and suns that nothing hides. */
  readonly lights: readonly { readonly x: number; readonly y: number }[]
}

export function truthOf({ scene, camera }: PhotoDefinition, depth: Float32Array, width: number, height: number): Truth {
  const sight = sightOf(camera)
  const { forward, right, up, half } = sight
  const at = (x: number, y: number): number => depth[Math.round(y) * width + Math.round(x)] ?? 0
  // Level directions: forward + right · 2 u half + up · 2 v half has no height.
  const middle = height / 2 + (forward[1] / up[1] / (2 * half)) * width
  const slope = right[1] / up[1]
  let seen = 0
  for (let x = 0; x < width; x++) {
    const y = middle + slope * (x - width / 2)
    if (y < BESIDE || y > height - 1 - BESIDE) continue
    if (at(x, y - BESIDE) > SKY_FROM && at(x, y + BESIDE) < SKY_FROM && at(x, y + BESIDE) > HORIZON_FROM) seen++
  }
  const inside = middle > 0 && middle < height
  const lights = scene.lights.flatMap((light) => {
    const way = subtract(light.centre, camera.place)
    const place = seenAt(sight, way)
    if (!place) return []
    const [x, y] = [(0.5 + place.u) * width, height / 2 - place.v * width]
    const hidden = at(x, y) < Math.min(SKY_FROM, 0.9 * (length(way) - light.radius))
    return x < 0 || y < 0 || x >= width || y >= height || hidden ? [] : [{ x: x / width, y: y / height }]
  })
  return {
    horizon: inside ? { y: middle / height, turn: (-Math.atan(slope) * 180) / Math.PI, seen: seen / width } : null,
    lights,
  }
}

/** Distances as codes, even in their logarithm from 1 m to 20 km; 255 is sky. Means of blocks of `by` px. */
export function depthCodes(depth: Float32Array, width: number, height: number, by: number): Uint8Array {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)]
  return Uint8Array.from({ length: w * h }, (_, i) => {
    let sum = 0
    for (let k = 0; k < by * by; k++) {
      const from = (Math.floor(i / w) * by + Math.floor(k / by)) * width + (i % w) * by + (k % by)
      const metres = depth[from] ?? 0
      sum += metres > SKY_FROM ? 255 : (254 * Math.log(Math.max(1, metres))) / Math.log(20000)
    }
    return Math.round(sum / (by * by))
  })
}
