import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, decodeSrgb, reduceInLinearLight } from '../../../../test-support/colourDifference'
import { loadKernels, take } from '../../../../test-support/kernels'
import { planeOf } from '../../../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll } from '../../../../test-support/pictures'
import { newEffect } from '../../../effects/newEffect'
import type { Effect } from '../../../effects/registry'
import type { Evaluator } from '../../../graph/evaluator'
import { noMarks } from '../../../model/marks'
import { sceneGraph } from '../../../render/sceneGraph'
import { gridAt, gridBounds } from '../../../planes/grid'
import { plane } from '../../plane'
import type { AirLight } from '../sceneLight/airLight'
import { sceneLightNode } from '../sceneLight/sceneLight'

const size = { width: 480, height: 320 }
const LIT_AT = 120
let evaluator: Evaluator
let photo: { id: string; width: number; height: number }
beforeAll(async () => {
  const kernels = await loadKernels()
  // Night at the right, a bright wall at the left.
  const codes = Array.from({ length: size.width * size.height }, (_, i) => (i % size.width < LIT_AT ? 200 : 6))
  const data = photoFrom(
    kernels,
    'night',
    size.width,
    size.height,
    codes.flatMap((code) => [code, code, code, 255]),
  )
  photo = data
  evaluator = evaluatorFor(kernels, data)
})

function snowfall(lit: number): Effect {
  const made = newEffect({ width: 1200, height: 800 }, { kind: 'snow', id: 'snow' })
  return { ...made, colour: { ...made.colour, lit }, where: { masks: [], hold: 100 } }
}

describe('light in the air', () => {
  it('is the blurred linear luminance of the photo, and the glow of its lights', () => {
    const lightOf = (sigma: number, glows: AirLight['glows']) => {
      const grid = gridAt(size, 1)
      const value = evaluator.evaluate(sceneLightNode({ photoId: 'night', sigma, glows }), gridBounds(grid), grid)
      return [0, 1, 2, 3].map((index) => take(evaluator.kernels, plane(value, index), size.width * size.height))
    }
    const [, , , plain] = lightOf(10, [])
    expect(plain![160 * 480 + 40]).toBeCloseTo(decodeSrgb(200 / 255), 3)
    expect(plain![160 * 480 + 440]).toBeCloseTo(decodeSrgb(6 / 255), 3)
    expect(plain![160 * 480 + LIT_AT]).toBeGreaterThan(0.4 * decodeSrgb(200 / 255))
    const [red, , blue, lamp] = lightOf(10, [{ x: 400, y: 100, sigma: 30, strength: 0.8, colour: [1, 1, 0] }])
    // The formula, at a standard deviation and at two; yellow has the luminance of red and green.
    for (const [x, value] of [
      [400, 0.8],
      [430, 0.8 * Math.exp(-0.5)],
      [460, 0.8 * Math.exp(-2)],
    ] as const) {
      expect(lamp![100 * 480 + x]! - plain![100 * 480 + x]!).toBeCloseTo(0.9278 * value, 1)
      expect(red![100 * 480 + x]! - plain![100 * 480 + x]!).toBeCloseTo(value, 1)
      expect(blue![100 * 480 + x]).toBeCloseTo(plain![100 * 480 + x]!, 4)
    }
  })

  it('brightens what falls through it and dims what falls in the dark, by the formula', () => {
    const field = (lit: number) =>
      planeOf(evaluator, sceneGraph({ photo, effects: [snowfall(lit)] }, { kind: 'step', effectId: 'snow', step: 'shape' }), size)
    const [plain, half, full] = [field(0), field(50), field(100)]
    const grid = gridAt(size, 1)
    const air = evaluator.evaluate(sceneLightNode({ photoId: 'night', sigma: 0.045 * 320, glows: [] }), gridBounds(grid), grid)
    const light = take(evaluator.kernels, plane(air, 3), size.width * size.height)
    let seen = 0
    plain.forEach((value, i) => {
      if (value < 0.05 || value > 0.5) return
      seen++
      const g = 0.2 + (1.5 * light[i]!) / (light[i]! + 0.15)
      expect(full[i]!).toBeCloseTo(value * g, 3)
      expect(half[i]!).toBeCloseTo(value * (1 + 0.5 * (g - 1)), 3)
    })
    expect(seen).toBeGreaterThan(500)
  })

  it('takes the colour of the light that it is in', () => {
    const light = { id: 'lamp', name: 'Lamp', x: 400, y: 100, colour: '#ff8800', strength: 100, radius: 14 }
    const alone = (lit: number) => {
      const node = sceneGraph(
        { photo, effects: [snowfall(lit)], marks: { ...noMarks, lights: [light] } },
        { kind: 'alone', effectId: 'snow' },
      )
      return renderAll(evaluator, node, size).pixels
    }
    const [plain, lit] = [alone(0), alone(100)]
    // How red against blue the flakes are, near the lamp and far from all light.
    const warmth = (pixels: ArrayLike<number>, x0: number, y0: number) => {
      let [red, blue] = [0, 0]
      for (let y = y0 - 30; y < y0 + 30; y++) {
        for (let x = x0 - 30; x < x0 + 30; x++) {
          red += pixels[4 * (y * 480 + x)]!
          blue += pixels[4 * (y * 480 + x) + 2]!
        }
      }
      return red / blue
    }
    expect(warmth(lit, 400, 100)).toBeGreaterThan(1.3 * warmth(plain, 400, 100))
    expect(warmth(lit, 250, 280)).toBeLessThan(1.1 * warmth(plain, 250, 280))
  })

  it('keeps the contract of preview and tiles, also with a light of the scene', () => {
    const light = { id: 'lamp', name: 'Lamp', x: 360, y: 120, colour: '#ffcc88', strength: 90, radius: 12 }
    const node = sceneGraph({ photo, effects: [snowfall(80)], marks: { ...noMarks, lights: [light] } })
    const full = renderAll(evaluator, node, size)
    const found = compareColours(reduceInLinearLight(full, 4), renderAll(evaluator, node, size, 0.25))
    expect(found.mean).toBeLessThan(1)
    expect(found.percentile99).toBeLessThan(4)
    expect(Buffer.compare(Buffer.from(full.pixels), Buffer.from(renderAll(evaluator, node, size, 1, 93).pixels))).toBe(0)
  })
})
