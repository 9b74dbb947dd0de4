import type { Rgb } from '../colour/hex'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { plane } from '../operations/plane'
import { gridAt, gridBounds, type Size } from '../planes/grid'
import { clampInto } from '../planes/rect'
import { withScratch } from '../planes/scratch'

// What a picture shows at a place. Taken at fixed scales, so that it does not depend on the view.

/** Half the side of the patch whose mean is taken, px of the picture at full size. */
const PATCH_REACH = 2
const LIGHT_SIDE = 1200
/** How far from the tapped place a light is looked for, as part of the longer side. */
const SEARCH = 0.03
/** A light's own colour is that of its glow, where the sensor is far from full. */
const FULL = 0.5

/** Linear-light samples of a part of a picture. */
interface Patch {
  readonly width: number
  readonly height: number
  readonly channels: readonly [Float32Array, Float32Array, Float32Array]
}

export interface MeasuredLight {
  /** Middle of the light, photo px. */
  readonly x: number
  readonly y: number
  readonly colour: Rgb
  /** Where its glow has fallen to half, photo px. */
  readonly radius: number
}

/** Mean colour of 5 × 5 px around a place, sRGB-encoded, averaged in linear light. The place may lie outside; then the nearest pixels count. */
export function colourAt(evaluator: Evaluator, tones: GraphNode, photo: Size, x: number, y: number): Rgb {
  const patch = linearPatch(evaluator, tones, photo, 1, x, y, PATCH_REACH)
  return encodedColour(evaluator, patch.channels.map((channel) => channel.reduce((sum, value) => sum + value, 0) / channel.length) as never)
}

/** The light nearest to a tapped place: its middle, the colour of its unclipped glow, and how far that reaches. */
export function measureLight(evaluator: Evaluator, tones: GraphNode, photo: Size, x: number, y: number): MeasuredLight {
  const scale = Math.min(1, LIGHT_SIDE / Math.max(photo.width, photo.height))
  const reach = Math.round(SEARCH * LIGHT_SIDE)
  const search = linearPatch(evaluator, tones, photo, scale, x, y, reach)
  const peak = brightestPlace(search)
  const at = { x: x + (peak.x - search.width / 2 + 0.5) / scale, y: y + (peak.y - search.height / 2 + 0.5) / scale }
  const around = linearPatch(evaluator, tones, photo, scale, at.x, at.y, reach * 2)
  const rings = ringMeans(around, reach * 2)
  const floor = luminance(rings.at(-1) ?? [0, 0, 0])
  const top = luminance(rings[0] ?? [0, 0, 0])
  const half = rings.findIndex((ring) => luminance(ring) < (top + floor) / 2)
  const colour = encodedColour(evaluator, glowColour(rings) as never)
  return { ...at, colour, radius: Math.max(1, half < 0 ? reach * 2 : half) / scale }
}

function linearPatch(evaluator: Evaluator, tones: GraphNode, photo: Size, scale: number, x: number, y: number, reach: number): Patch {
  const grid = gridAt(photo, scale)
  const side = 2 * reach + 1
  const wanted = { x: Math.floor(x / grid.pitchX) - reach, y: Math.floor(y / grid.pitchY) - reach, width: side, height: side }
  const inside = clampInto(wanted, gridBounds(grid))
  const value = evaluator.evaluate(tones, inside, grid)
  const { kernels } = evaluator
  return withScratch(kernels, (scratch) => {
    const channels = [0, 1, 2].map((channel) => {
      const linear = scratch(side * side * 4)
      kernels.copyExtended(plane(value, channel), inside.width, inside.height, wanted.x - inside.x, wanted.y - inside.y, linear, side, side)
      kernels.decodePlane(linear, linear, side * side)
      return new Float32Array(kernels.memory.buffer, linear, side * side).slice()
    })
    return { width: side, height: side, channels: channels as unknown as Patch['channels'] }
  })
}

/** What the glow adds to the surroundings, at its brightest place where no channel is nearly full; the greatest channel is 1. */
function glowColour(rings: readonly number[][]): number[] {
  const around = rings.at(-1) ?? [0, 0, 0]
  const ring = rings.find((one) => Math.max(...one) < FULL && luminance(one) > luminance(around)) ?? rings[0] ?? [1, 1, 1]
  const added = ring.map((value, channel) => Math.max(0, value - (around[channel] ?? 0)))
  const light = Math.max(...added) > 1e-3 ? added : ring
  return light.map((value) => value / Math.max(...light, 1e-6))
}

function luminance([red = 0, green = 0, blue = 0]: readonly number[]): number {
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/** Centre of gravity of the brightest hundredth. */
function brightestPlace({ width, channels }: Patch): { x: number; y: number } {
  const light = channels[0].map((_, i) => luminance(channels.map((channel) => channel[i] ?? 0)))
  const least = light.slice().sort()[Math.floor(light.length * 0.99)] ?? 0
  let [sum, sumX, sumY] = [0, 0, 0]
  light.forEach((value, i) => {
    if (value < least) return
    sum += value
    sumX += value * (i % width)
    sumY += value * Math.floor(i / width)
  })
  return sum > 0 ? { x: sumX / sum, y: sumY / sum } : { x: (width - 1) / 2, y: (width - 1) / 2 }
}

/** Mean colours of rings one pixel wide about the middle. */
function ringMeans({ width, height, channels }: Patch, count: number): number[][] {
  const sums = Array.from({ length: count + 1 }, () => [0, 0, 0, 0])
  for (let i = 0; i < width * height; i++) {
    const ring = sums[Math.round(Math.hypot((i % width) - (width - 1) / 2, Math.floor(i / width) - (height - 1) / 2))]
    if (!ring) continue
    channels.forEach((channel, c) => (ring[c] = (ring[c] ?? 0) + (channel[i] ?? 0)))
    ring[3] = (ring[3] ?? 0) + 1
  }
  return sums.map(([red = 0, green = 0, blue = 0, number = 1]) => [red / number, green / number, blue / number])
}

function encodedColour({ kernels }: Evaluator, linear: readonly [number, number, number]): Rgb {
  return withScratch(kernels, (scratch) => {
    const block = scratch(16)
    new Float32Array(kernels.memory.buffer, block, 3).set(linear)
    kernels.encodePlane(block, block, 3)
    const [red = 0, green = 0, blue = 0] = new Float32Array(kernels.memory.buffer, block, 3)
    return [red, green, blue]
  })
}
