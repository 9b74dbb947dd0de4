import { beforeAll, describe, expect, it } from 'vitest'
import { decodeSrgb, encodeSrgb } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import { photoNode } from '../operations/sources/photo/photo'
import { colourAt, measureLight } from './places'

const size = { width: 600, height: 400 }
const lamp = { x: 410, y: 130, reach: 14, colour: [1, 0.62, 0.28] }
let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  // A dusk sky with a lamp in it, whose middle is fully white; light adds in linear light.
  const rgba = Array.from({ length: size.width * size.height }, (_, i) => {
    const away = Math.hypot((i % size.width) + 0.5 - lamp.x, Math.floor(i / size.width) + 0.5 - lamp.y)
    const glow = 4 * Math.exp(-(away * away) / (2 * lamp.reach ** 2))
    const sky = [40, 60, 110].map((code) => decodeSrgb(code / 255))
    return [...lamp.colour.map((c, channel) => 255 * encodeSrgb(Math.min(1, sky[channel]! + glow * c))), 255]
  }).flat()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'lamp', size.width, size.height, rgba))
})

describe('what a photo shows at a place', () => {
  it('is the mean of a small patch, also beyond the frame', () => {
    expect(colourAt(evaluator, photoNode('lamp'), size, 20, 380).map((v) => Math.round(v * 255))).toEqual([40, 60, 110])
    expect(colourAt(evaluator, photoNode('lamp'), size, -900, 9000).map((v) => Math.round(v * 255))).toEqual([40, 60, 110])
  })

  it('a light is found beside the tap; its colour is that of its glow, not of its white middle', () => {
    const found = measureLight(evaluator, photoNode('lamp'), size, lamp.x - 9, lamp.y + 7)
    expect(Math.hypot(found.x - lamp.x, found.y - lamp.y)).toBeLessThan(3)
    found.colour.forEach((value, channel) => expect(Math.abs(decodeSrgb(value) - lamp.colour[channel]!)).toBeLessThan(0.06))
    expect(found.radius).toBeGreaterThan(lamp.reach)
    expect(found.radius).toBeLessThan(lamp.reach * 4)
  })

  it('of a place without a light is just its colour', () => {
    const { colour, radius } = measureLight(evaluator, photoNode('lamp'), size, 60, 330)
    expect(colour[2]).toBeGreaterThan(0.99)
    expect(Number.isFinite(radius)).toBe(true)
  })
})
