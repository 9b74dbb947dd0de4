import type { Rgb } from '../colour/hex'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { toneChannels, type ToneChannel } from '../operations/masks/luminosityMask/luminosityMask'
import { plane } from '../operations/plane'
import { gridAt, gridBounds, type Grid, type Size } from '../planes/grid'
import { withScratch } from '../planes/scratch'
import type { Value } from '../planes/value'

// Statistics of a whole picture are taken once, at one fixed level, so that they do not depend on the view.

const MEASURED_SIDE = 768
export const HISTOGRAM_BINS = 256

/** The grid on which a picture is measured: at most 768 px a side. */
function measuringGrid(photo: Size): Grid {
  return gridAt(photo, Math.min(1, MEASURED_SIDE / Math.max(photo.width, photo.height)))
}

/** How many pixels have each tone, in 256 equal parts of 0-1. */
export function toneHistogram(evaluator: Evaluator, tones: GraphNode, photo: Size, channel: ToneChannel): Uint32Array {
  const { kernels } = evaluator
  const value = wholePicture(evaluator, tones, photo)
  const count = value.rect.width * value.rect.height
  return withScratch(kernels, (scratch) => {
    const read = readTones(evaluator, value, channel, scratch(count * 4))
    const bins = scratch(HISTOGRAM_BINS * 4)
    new Uint32Array(kernels.memory.buffer, bins, HISTOGRAM_BINS).fill(0)
    kernels.histogram(read, count, bins, HISTOGRAM_BINS)
    return new Uint32Array(kernels.memory.buffer, bins, HISTOGRAM_BINS).slice()
  })
}

/**
 * Mean colour (sRGB-encoded, averaged in linear light) of the brightest part of a picture, by linear luminance.
 * @param part 0-1, for instance 0.05 for the brightest 5 %
 */
export function brightestColour(evaluator: Evaluator, tones: GraphNode, photo: Size, part: number): Rgb {
  const { kernels } = evaluator
  const value = wholePicture(evaluator, tones, photo)
  const count = value.rect.width * value.rect.height
  return withScratch(kernels, (scratch) => {
    const luminance = readTones(evaluator, value, 'linearLuminance', scratch(count * 4))
    const sorted = new Float32Array(kernels.memory.buffer, luminance, count).slice().sort()
    const threshold = sorted[Math.min(count - 1, Math.floor(count * (1 - part)))] ?? 1
    const channels = [0, 1, 2].map((channel) => {
      const linear = scratch(count * 4)
      kernels.decodePlane(plane(value, channel), linear, count)
      return meanWhere(kernels.memory.buffer, luminance, linear, count, threshold)
    })
    const mean = scratch(16)
    new Float32Array(kernels.memory.buffer, mean, 3).set(channels)
    kernels.encodePlane(mean, mean, 3)
    const [red = 0, green = 0, blue = 0] = new Float32Array(kernels.memory.buffer, mean, 3)
    return [red, green, blue]
  })
}

function wholePicture(evaluator: Evaluator, tones: GraphNode, photo: Size): Value {
  const grid = measuringGrid(photo)
  return evaluator.evaluate(tones, gridBounds(grid), grid)
}

function readTones(evaluator: Evaluator, value: Value, channel: ToneChannel, out: number): number {
  const count = value.rect.width * value.rect.height
  const index = toneChannels.indexOf(channel)
  evaluator.kernels.tonePlane(index, plane(value, 0), plane(value, 1), plane(value, 2), count, out)
  return out
}

function meanWhere(memory: ArrayBufferLike, luminance: number, values: number, count: number, threshold: number): number {
  const light = new Float32Array(memory, luminance, count)
  const value = new Float32Array(memory, values, count)
  let sum = 0
  let chosen = 0
  for (let i = 0; i < count; i++) {
    if ((light[i] ?? 0) < threshold) continue
    sum += value[i] ?? 0
    chosen++
  }
  return chosen === 0 ? 0 : sum / chosen
}
