import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { greatestDifference, planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import type { PhotoData } from '../photo/photoData'
import { highPassNode } from './fields/difference/difference'
import { gaussianBlurNode } from './blurs/gaussianBlur/gaussianBlur'
import { luminosityMaskNode } from './masks/luminosityMask/luminosityMask'
import { photoNode } from './sources/photo/photo'
import { bendNode } from './geometry/bend/bend'
import { polarWrapNode } from './geometry/polarWrap/polarWrap'
import { maskAsTonesNode } from './masks/maskAsTones/maskAsTones'
import { radialBlurNode, type RadialBlurParameters } from './blurs/radialBlur/radialBlur'
import { towardsNode } from './geometry/towards/towards'

// Brute force from the definitions, on pictures smooth enough that reading between pixels is not what is tested.

const [width, height] = [120, 90]
const size = { width, height }
let kernels: Kernels
let evaluator: Evaluator
let photo: PhotoData
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'p', width, height, samplePixels(width, height, 5))
  evaluator = evaluatorFor(kernels, photo)
})

const tones = photoNode('p')
const luma = luminosityMaskNode(tones, { channel: 'encodedLuma', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
const smooth = gaussianBlurNode(luma, 2.5)

/** Reads between pixels; (x, y) in px from the corner of the picture, the border repeats. */
function readAt(values: Float32Array, x: number, y: number): number {
  const [u, v] = [Math.min(width - 1, Math.max(0, x - 0.5)), Math.min(height - 1, Math.max(0, y - 0.5))]
  const [ix, iy] = [Math.floor(u), Math.floor(v)]
  const at = (dx: number, dy: number) => values[Math.min(height - 1, iy + dy) * width + Math.min(width - 1, ix + dx)]!
  const top = at(0, 0) + (u - ix) * (at(1, 0) - at(0, 0))
  const bottom = at(0, 1) + (u - ix) * (at(1, 1) - at(0, 1))
  return top + (v - iy) * (bottom - top)
}

function byDefinition(values: Float32Array, { kind, x, y, strength, sides }: RadialBlurParameters): Float32Array {
  const far = Math.max(...[0, width].flatMap((cx) => [0, height].map((cy) => Math.hypot(cx - x, cy - y))))
  const least = Math.max(0.02, 1 - Math.min(1, strength / far))
  const samples = 400
  return Float32Array.from({ length: width * height }, (_, i) => {
    const [dx, dy] = [(i % width) + 0.5 - x, Math.floor(i / width) + 0.5 - y]
    let sum = 0
    for (let k = 0; k < samples; k++) {
      const u = (k + 0.5) / samples - (kind === 'zoom' && sides === 'outward' ? 0 : 0.5)
      if (kind === 'zoom') sum += readAt(values, x + dx * least ** u, y + dy * least ** u)
      else {
        const a = (strength * Math.PI * u) / 180
        sum += readAt(values, x + dx * Math.cos(a) - dy * Math.sin(a), y + dx * Math.sin(a) + dy * Math.cos(a))
      }
    }
    return sum / samples
  })
}

describe('zoom and spin blur', () => {
  it.each([
    { kind: 'zoom', x: 40, y: 30, strength: 6, sides: 'outward' },
    { kind: 'zoom', x: 40, y: 30, strength: 45, sides: 'outward' },
    { kind: 'zoom', x: 100.3, y: 71.8, strength: 30, sides: 'both' },
    { kind: 'zoom', x: -300, y: 500, strength: 60, sides: 'outward' },
    { kind: 'zoom', x: 60, y: 45, strength: 5000, sides: 'outward' },
    { kind: 'spin', x: 60, y: 45, strength: 4, sides: 'both' },
    { kind: 'spin', x: 20.5, y: 80, strength: 30, sides: 'both' },
    { kind: 'spin', x: -40, y: 20, strength: 12, sides: 'both' },
  ] as const)('$kind about ($x, $y) of $strength, $sides, is the mean along the way', (params) => {
    const found = planeOf(evaluator, radialBlurNode(smooth, params), size)
    expect(greatestDifference(found, byDefinition(planeOf(evaluator, smooth, size), params))).toBeLessThan(0.012)
  })

  it.each([75, 200, 360])('a spin of %s° gives way in detail, and is the mean along the way of what is smooth', (strength) => {
    const smoother = gaussianBlurNode(luma, 10)
    const params = { kind: 'spin', x: 60, y: 45, strength, sides: 'both' } as const
    const found = planeOf(evaluator, radialBlurNode(smoother, params), size)
    expect(greatestDifference(found, byDefinition(planeOf(evaluator, smoother, size), params))).toBeLessThan(0.012)
  })

  it('has the way of its strength at the farthest corner', () => {
    // One bright column of a few pixels near the left edge, smeared outward from the right edge's middle.
    const dot = Array.from({ length: width * height }, (_, i) => {
      const lit = Math.abs((i % width) - 30) <= 1 && Math.abs(Math.floor(i / width) - 45) <= 1
      return lit ? [255, 255, 255, 255] : [0, 0, 0, 255]
    }).flat()
    const one = evaluatorFor(kernels, photoFrom(kernels, 'p', width, height, dot))
    const params = { kind: 'zoom', x: 120, y: 45.5, strength: 40, sides: 'outward' } as const
    const row = planeOf(one, radialBlurNode(luma, params), size).subarray(45 * width, 46 * width)
    const lit = [...row].flatMap((value, x) => (value > 0.02 ? [x] : []))
    // At a distance d the way is d (1 - 1 / (1 - strength / farthest corner)) outward.
    const far = Math.hypot(120, 45.5)
    expect(lit.at(-1)!).toBeCloseTo(31, -0.4)
    expect(120 - lit[0]!).toBeCloseTo(Math.min(120, 90 / (1 - 40 / far)), -0.7)
  })

  it('leaves a flat picture as it is, and any tiles give identical bytes', () => {
    const flat = evaluatorFor(kernels, photoFrom(kernels, 'p', width, height, new Array(width * height).fill([90, 120, 200, 255]).flat()))
    for (const params of [
      { kind: 'zoom', x: 300, y: -50, strength: 80, sides: 'outward' },
      { kind: 'spin', x: 10, y: 10, strength: 30, sides: 'both' },
    ] as const) {
      const { pixels } = renderAll(flat, radialBlurNode(tones, params), size)
      expect([...pixels.subarray(0, 4)]).toEqual([90, 120, 200, 255])
      expect(new Set(pixels).size).toBe(4)
      const [whole, tiled] = [4096, 37].map((tile) => renderAll(evaluatorFor(kernels, photo), radialBlurNode(tones, params), size, 1, tile))
      expect(Buffer.from(whole!.pixels).equals(Buffer.from(tiled!.pixels))).toBe(true)
    }
  })
})

describe('polar wrap', () => {
  it.each([
    { x: 60, y: 45, reach: 60, turn: 0, overlap: 0.2 },
    { x: 20, y: 70, reach: 140, turn: 130, overlap: 0.1 },
    { x: -30, y: 45, reach: 160, turn: -45, overlap: 0.3 },
  ])('about ($x, $y): across the strip becomes the angle, down it the distance', (params) => {
    const strip = planeOf(evaluator, smooth, size)
    const found = planeOf(evaluator, polarWrapNode(smooth, params), size)
    const fade = params.overlap * width
    const period = width - fade
    let compared = 0
    for (let i = 0; i < width * height; i += 7) {
      const [dx, dy] = [(i % width) + 0.5 - params.x, Math.floor(i / width) + 0.5 - params.y]
      const r = Math.hypot(dx, dy)
      if (r < 12) continue
      const turned = ((Math.atan2(-dy, dx) - (params.turn * Math.PI) / 180) / (2 * Math.PI) + 2) % 1
      const [u, v] = [turned * period, (r / params.reach) * height]
      const own = readAt(strip, u, v)
      const wanted =
        r > params.reach ? 0 : u < fade ? readAt(strip, u + period, v) + (u / fade) * (own - readAt(strip, u + period, v)) : own
      expect(Math.abs(found[i]! - wanted), `pixel ${i}`).toBeLessThan(0.03)
      compared++
    }
    expect(compared).toBeGreaterThan(800)
  })

  it('is the same in tiles that read only a part of the strip, wherever the place, the beginning and the end', () => {
    for (const params of [
      { x: 60.3, y: 45.8, reach: 60, turn: 0, overlap: 0 },
      { x: 0, y: 90, reach: 200, turn: 200, overlap: 0.1 },
      { x: -400, y: 20, reach: 600, turn: 3, overlap: 0.3 },
      { x: 100, y: -5, reach: 40, turn: -91, overlap: 0.2 },
      { x: 50, y: 40, reach: 90, turn: 20, overlap: 1 },
    ]) {
      const node = maskAsTonesNode(polarWrapNode(smooth, params))
      const [whole, ...tiled] = [4096, 31, 7].map((tile) => renderAll(evaluatorFor(kernels, photo), node, size, 1, tile).pixels)
      expect(new Set(whole).size).toBeGreaterThan(20)
      for (const one of tiled) expect(Buffer.from(one).equals(Buffer.from(whole!)), JSON.stringify(params)).toBe(true)
    }
  })

  it('has no seam: it is as even across the place where the strip begins as anywhere else', () => {
    const found = planeOf(evaluator, polarWrapNode(smooth, { x: 20, y: 45, reach: 150, turn: 0, overlap: 0.15 }), size)
    const step = (row: number) => {
      const across = Array.from({ length: 60 }, (_, i) => Math.abs(found[row * width + 45 + i]! - found[(row - 1) * width + 45 + i]!))
      return across.reduce((sum, value) => sum + value, 0) / across.length
    }
    const elsewhere = [20, 28, 36, 54, 62, 70].map(step)
    expect(step(45)).toBeLessThan(1.6 * Math.max(...elsewhere))
  })
})

describe('high-pass and the step towards a place', () => {
  it.each([1, 4, 12.5])('of %s px is the picture less its blur, about a mid-grey', (radius) => {
    const [sharp, blurred] = [planeOf(evaluator, luma, size), planeOf(evaluator, gaussianBlurNode(luma, radius), size)]
    const found = planeOf(evaluator, highPassNode(luma, radius), size)
    expect(
      greatestDifference(
        found,
        sharp.map((value, i) => value - blurred[i]! + 0.5),
      ),
    ).toBeLessThan(1e-6)
  })

  it('reads what lies nearer to the place', () => {
    const values = planeOf(evaluator, smooth, size)
    const place = { x: 170, y: -20, step: 6 }
    const found = planeOf(evaluator, towardsNode(smooth as GraphNode, place), size)
    for (const i of [200, 3456, 8000]) {
      const [x, y] = [(i % width) + 0.5, Math.floor(i / width) + 0.5]
      const far = Math.hypot(place.x - x, place.y - y)
      expect(found[i]!).toBeCloseTo(readAt(values, x + (6 * (place.x - x)) / far, y + (6 * (place.y - y)) / far), 4)
    }
  })
})

describe('bending', () => {
  it.each([
    { reach: 9, angle: 0 },
    { reach: 14.5, angle: 70 },
    { reach: -6, angle: 200 },
  ])('by $reach px at $angle° reads each place from where the other field says, in any tiles', (params) => {
    const [values, by] = [planeOf(evaluator, smooth, size), planeOf(evaluator, luma, size)]
    const node = bendNode(smooth, luma, params)
    const found = planeOf(evaluator, node, size)
    const radians = (params.angle * Math.PI) / 180
    for (let i = 0; i < width * height; i += 53) {
      const way = params.reach * (2 * by[i]! - 1)
      const [x, y] = [(i % width) + 0.5 - way * Math.cos(radians), Math.floor(i / width) + 0.5 + way * Math.sin(radians)]
      expect(found[i]!, `pixel ${i}`).toBeCloseTo(readAt(values, x, y), 4)
    }
    const [whole, tiled] = [4096, 31].map((tile) => renderAll(evaluatorFor(kernels, photo), maskAsTonesNode(node), size, 1, tile))
    expect(Buffer.from(whole!.pixels).equals(Buffer.from(tiled!.pixels))).toBe(true)
  })
})
