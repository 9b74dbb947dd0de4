import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { gaussianOracle } from '../../../../test-support/gaussianOracle'
import { loadKernels, put, take } from '../../../../test-support/kernels'
import { randomNumbers } from '../../../../test-support/pictures'
import { everyNth } from '../../../../test-support/sampled'
import type { Kernels } from '../../../graph/operation'
import { expand, intersect, type Rect } from '../../../planes/rect'
import { blurPlane, blurReach } from './blurPlane'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const sigmas = [0.7, 2, 5.5, 8, 9.2, 12, 18.5, 25, 47, 100]

function blurWhole(
  plane: ArrayLike<number>,
  width: number,
  height: number,
  sigma: number,
  rect: Rect = { x: 0, y: 0, width, height },
): Float32Array {
  const whole = { x: 0, y: 0, width, height }
  const out = kernels.allocate(rect.width * rect.height * 4)
  blurPlane(kernels, put(kernels, plane), whole, rect, sigma, out)
  return take(kernels, out, rect.width * rect.height)
}

/** Noise, a hard edge, a fine grating near the sampling of the reduced levels, single bright pixels. */
function testPlane(width: number, height: number, kind: string): Float32Array {
  const random = randomNumbers(3)
  return Float32Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)]
    if (kind === 'noise') return random()
    if (kind === 'edge') return x > width * 0.47 + 0.2 * y ? 1 : 0
    if (kind === 'grating') return 0.5 + 0.5 * Math.sin(x * 0.79) * Math.cos(y * 0.4)
    return (x * 7919 + y * 104729) % 997 === 0 ? 1 : 0
  })
}

describe('Gaussian blur', () => {
  // The formula exp(-r² / 2σ²), sampled and normalised.
  it.each(sigmas)('of σ %s px gives the formula for an impulse', (sigma) => {
    const side = 2 * Math.ceil(4 * sigma) + 41
    const centre = (side - 1) / 2
    const impulse = new Float32Array(side * side)
    // As much light as makes the peak 1.
    const light = 2 * Math.PI * sigma * sigma
    impulse[centre * side + centre] = light
    const found = blurWhole(impulse, side, side, sigma)
    let sum = 0
    let worst = 0
    const weight = (i: number): number => Math.exp((-0.5 * i * i) / (sigma * sigma))
    let norm = 0
    for (let i = -centre; i <= centre; i++) norm += weight(i)
    for (let y = 0; y < side; y++) {
      for (let x = 0; x < side; x++) {
        const expected = (light * weight(x - centre) * weight(y - centre)) / (norm * norm)
        worst = Math.max(worst, Math.abs(found[y * side + x]! - expected))
        sum += found[y * side + x]!
      }
    }
    expect(worst).toBeLessThan(1 / 255)
    expect(sum / light).toBeCloseTo(1, 3)
  })

  const planes = sigmas.flatMap((sigma) => ['noise', 'edge', 'grating', 'specks'].map((kind) => [sigma, kind] as const))
  it.each(everyNth(planes, 3))('of σ %s px on %s is within 1/255 of brute force, borders too', (sigma, kind) => {
    const [width, height] = [203, 149]
    const plane = testPlane(width, height, kind)
    const found = blurWhole(plane, width, height, sigma)
    const expected = gaussianOracle(plane, width, height, sigma)
    expect(Math.max(...found.map((v, i) => Math.abs(v - expected[i]!)))).toBeLessThan(1 / 255)
  })

  // sharp 0.35 (libvips) in its most precise setting; its defaults cut the kernel short.
  it.each([2, 8, 25])('of σ %s px agrees with sharp in the interior', async (sigma) => {
    const side = 320
    const plane = testPlane(side, side, 'noise').map((v) => Math.round(v * 255) / 255)
    const codes = Buffer.from(plane.map((v) => v * 255))
    const { data } = await sharp(codes, { raw: { width: side, height: side, channels: 1 } })
      .blur({ sigma, precision: 'float', minAmplitude: 0.001 })
      .raw()
      .toBuffer({ resolveWithObject: true })
    const found = blurWhole(plane, side, side, sigma)
    const margin = Math.ceil(4 * sigma)
    const channels = data.length / (side * side)
    let worst = 0
    for (let y = margin; y < side - margin; y++)
      for (let x = margin; x < side - margin; x++)
        worst = Math.max(worst, Math.abs(found[y * side + x]! - data[(y * side + x) * channels]! / 255))
    expect(worst).toBeLessThan(1.5 / 255)
  })

  it.each([2, 11, 40])('of σ %s px gives the same bytes for any tile, reading only its reach', (sigma) => {
    const [width, height] = [317, 211]
    const plane = testPlane(width, height, 'noise')
    const whole = blurWhole(plane, width, height, sigma)
    for (const tile of [
      { x: 0, y: 0, width: 64, height: 64 },
      { x: 101, y: 37, width: 90, height: 111 },
      { x: 250, y: 150, width: 67, height: 61 },
    ]) {
      const need = intersect(expand(tile, blurReach(sigma)), { x: 0, y: 0, width, height })
      const part = Float32Array.from(
        { length: need.width * need.height },
        (_, i) => plane[(need.y + Math.floor(i / need.width)) * width + need.x + (i % need.width)]!,
      )
      const out = kernels.allocate(tile.width * tile.height * 4)
      blurPlane(kernels, put(kernels, part), need, tile, sigma, out)
      const found = take(kernels, out, tile.width * tile.height)
      found.forEach((v, i) => expect(v).toBe(whole[(tile.y + Math.floor(i / tile.width)) * width + tile.x + (i % tile.width)]))
    }
  })
})
