import type { Kernels } from '../../../graph/operation'

/** Weight of a pixel at a distance of (dx, dy) px. */
export interface Tap {
  readonly dx: number
  readonly dy: number
  readonly weight: number
}

const SAMPLES_PER_PX = 4
const LEAST_SAMPLES = 24

/**
 * The kernel of a motion blur: the mean of the picture, read bilinearly, along a straight line of `length` px
 * at `angle` degrees counter-clockwise from x, centred on the pixel. Four samples a px, at least 24. The weights sum to 1.
 */
export function motionTaps(kernels: Kernels, length: number, angle: number): Tap[] {
  const radians = (angle * Math.PI) / 180
  const alongX = kernels.cosine(radians)
  const alongY = -kernels.sine(radians)
  const samples = Math.max(LEAST_SAMPLES, Math.ceil(length * SAMPLES_PER_PX))
  const weights = new Map<string, Tap>()
  const add = (dx: number, dy: number, weight: number): void => {
    if (weight === 0) return
    const key = `${dx} ${dy}`
    weights.set(key, { dx, dy, weight: (weights.get(key)?.weight ?? 0) + weight })
  }
  for (let i = 0; i < samples; i++) {
    const t = ((i + 0.5) / samples - 0.5) * length
    const x = t * alongX
    const y = t * alongY
    const dx = Math.floor(x)
    const dy = Math.floor(y)
    const partX = x - dx
    const partY = y - dy
    add(dx, dy, ((1 - partX) * (1 - partY)) / samples)
    add(dx + 1, dy, (partX * (1 - partY)) / samples)
    add(dx, dy + 1, ((1 - partX) * partY) / samples)
    add(dx + 1, dy + 1, (partX * partY) / samples)
  }
  return [...weights.values()].sort((a, b) => a.dy - b.dy || a.dx - b.dx)
}

/** Pixels around a rectangle that the taps of a blur of `length` px may read. */
export function motionReach(length: number): number {
  return Math.ceil(length / 2) + 1
}
