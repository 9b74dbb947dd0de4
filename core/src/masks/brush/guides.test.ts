import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { planeOf } from '../../../test-support/masks'
import { evaluatorFor, photoFrom } from '../../../test-support/pictures'
import type { Kernels } from '../../graph/operation'
import { colourAt } from '../../measure/places'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { brushMaskNode } from '../../operations/masks/brushMask/brushMask'
import { photoNode } from '../../operations/sources/photo/photo'
import { guidesAlong, MOST_GUIDES, placesAlong } from './guides'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const folder = fileURLToPath(new URL('../../../../demo/photos/', import.meta.url))
const TOLERANCE = 10

describe('a stroke that stops at edges', () => {
  // What is covered is known from the distances that the tracer wrote: codes from `least` on are the subject or nearer, the sky behind it is 0.
  it.each([
    ['along a mast', 'headland', 3, 60, [[768, 440], [755, 500], [770, 560], [752, 620], [762, 690]]], // oxfmt-ignore
    ['along a trestle', 'headland', 3, 110, [[1850, 930], [2050, 905], [2300, 940], [2500, 905], [2900, 900]]], // oxfmt-ignore
    [
      'along a roof',
      'ferry-quay',
      12,
      200,
      [
        [40, 440],
        [300, 600],
        [560, 740],
        [760, 850],
      ],
    ],
  ] as const)('%s spills less than a fifth of what it spills without', async (_, name, least, size, way) => {
    // What lies about the stroke is enough.
    const [xs, ys] = [way.map(([x]) => x), way.map(([, y]) => y)]
    const [left, top] = [Math.max(0, Math.min(...xs) - size), Math.max(0, Math.min(...ys) - size)]
    const part = { left, top, width: Math.min(3000 - left, Math.max(...xs) - left + size), height: Math.max(...ys) - top + size }
    const { data, info } = await sharp(`${folder}${name}.jpg`).extract(part).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const photo = photoFrom(kernels, name, info.width, info.height, data)
    const evaluator = evaluatorFor(kernels, photo)
    const known = await sharp(`${folder}${name}-depth.png`).resize(3000, 2000, { fit: 'fill' }).toBuffer()
    const distances = await sharp(known).extract(part).greyscale().raw().toBuffer()
    const points = way.flatMap(([x, y]) => [x - left, y - top, 1])
    const places = placesAlong(points, size)
    const guides = guidesAlong(places, places.map(({ x, y }) => colourAt(evaluator, photoNode(name), photo, x, y)), TOLERANCE / 100) // oxfmt-ignore
    const stroke = {
      size,
      hardness: 80,
      flow: 100,
      level: 100,
      pressure: 'nothing' as const,
      erase: false,
      points,
      guides,
      tolerance: TOLERANCE,
    }
    const kept = planeOf(evaluator, brushMaskNode([stroke], gaussianBlurNode(photoNode(name), 1.5)), photo)
    const whole = planeOf(evaluator, brushMaskNode([{ ...stroke, guides: [] }]), photo)
    const sum = (plane: Float32Array, inside: boolean): number =>
      plane.reduce((total, value, i) => total + (distances[i]! >= least === inside ? value : 0), 0)
    expect(sum(kept, false)).toBeLessThan(0.2 * sum(whole, false))
    expect(sum(kept, true)).toBeGreaterThan(0.6 * sum(whole, true))
  })

  it('looks at places evenly along its way, never more than it can keep', () => {
    const places = placesAlong([0, 0, 1, 100, 0, 1, 100, 50, 1], 60)
    places.slice(1).forEach(({ x, y }, i) => expect(Math.abs(x - places[i]!.x) + Math.abs(y - places[i]!.y)).toBeCloseTo(10, 6))
    expect(placesAlong([0, 0, 1, 1e6, 0, 1], 10).length).toBeLessThanOrEqual(MOST_GUIDES)
    expect(placesAlong([7, 9, 1], 60)).toEqual([{ x: 7, y: 9 }])
    expect(placesAlong([], 60)).toEqual([])
  })

  it('keeps the colour before where the hand has slipped off', () => {
    const [brown, grey, sky] = [[0.4, 0.3, 0.2], [0.42, 0.31, 0.21], [0.5, 0.6, 0.9]] as const // oxfmt-ignore
    const places = [0, 1, 2, 3].map((x) => ({ x, y: 0 }))
    const colours = guidesAlong(places, [brown, grey, sky, grey], 0.1).map(({ colour }) => colour)
    expect(colours[2]).toBe(colours[1])
    expect(colours[0]).toBe('#664d33')
    expect(guidesAlong([], [], 0.1)).toEqual([])
  })
})
