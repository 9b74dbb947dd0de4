import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { fall, greatestDifference, maskOf, planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, randomNumbers, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import { noMarks, type SceneMarks } from '../model/marks'
import type { PhotoData } from '../photo/photoData'
import { maskContext } from '../render/sceneGraph'
import { newEffect } from '../effects/newEffect'
import { ellipseCentre } from './ellipse/definition'
import { lineEnds } from './line/definition'
import type { BrushStroke } from './brush/definition'
import type { OutlineCorner } from '../model/corner'
import type { Mask } from './registry'
import { singleMaskNode } from './whereNode'

const size = { width: 240, height: 160 }
let evaluator: Evaluator
let photo: PhotoData
beforeAll(async () => {
  const kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  evaluator = evaluatorFor(kernels, photo)
})

function render(mask: Mask, marks: SceneMarks = noMarks): Float32Array {
  const effect = newEffect(size, { kind: 'rain', id: 'rain' })
  const node = singleMaskNode(mask, maskContext({ photo, effects: [effect], marks }, 'rain'))
  if (!node) throw new Error('The mask was left out.')
  return planeOf(evaluator, node, size)
}

/** What a formula of the pixel centre gives for every pixel. */
function each(formula: (x: number, y: number) => number): number[] {
  return Array.from({ length: size.width * size.height }, (_, i) => formula((i % size.width) + 0.5, Math.floor(i / size.width) + 0.5))
}

// The falls are our own definitions, written out here a second time; no source.
describe('masks with a shape', () => {
  it('ellipse: 1 inside, then a smooth fall over its softness to 0 on the rim', () => {
    const mask = maskOf(size, 'ellipse', { x: 100, y: 70, radiusX: 80, radiusY: 40, turn: 30, softness: 50 })
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)]
    const expected = each((x, y) => {
      // Counter-clockwise on a picture whose y points down.
      const [u, v] = [(c * (x - 100) - s * (y - 70)) / 80, (s * (x - 100) + c * (y - 70)) / 40]
      return fall((Math.hypot(u, v) - 0.5) / 0.5)
    })
    expect(greatestDifference(render(mask), expected)).toBeLessThan(2e-5)
    const outside = render({ ...mask, invert: true })
    expect(
      greatestDifference(
        outside,
        expected.map((value) => 1 - value),
      ),
    ).toBeLessThan(2e-5)
  })

  it('line: falls between its two ends, and shows nothing but a hard edge when they meet', () => {
    const mask = maskOf(size, 'line', { x: 60, y: 40, toX: 140, toY: 100 })
    const expected = each((x, y) => fall(((x - 60) * 80 + (y - 40) * 60) / 10000))
    expect(greatestDifference(render(mask), expected)).toBeLessThan(2e-5)
    const met = render({ ...mask, toX: 60, toY: 40 })
    expect([met[0], met[159 * 240]]).toEqual([1, 0])
  })

  it('band: half its width from the middle line, then a fall on each side', () => {
    const expected = each((_, y) => fall((Math.abs(y - 80) - 20) / 30))
    expect(greatestDifference(render(maskOf(size, 'band', { x: 120, y: 80, turn: 0, width: 40, softness: 30 })), expected)).toBeLessThan(
      2e-5,
    )
  })

  it('frame edge: opens inwards from the frame', () => {
    const mask = maskOf(size, 'frame', { inset: 10, softness: 30, roundness: 0 })
    const expected = each((x, y) => 1 - fall((Math.min(x, 240 - x, y, 160 - y) - 10) / 30))
    expect(greatestDifference(render(mask), expected)).toBeLessThan(2e-5)
  })

  it.each([
    ['ellipse', { x: 1e5, y: -1e5, radiusX: 0.5, radiusY: 0.5, softness: 0 }],
    ['line', { x: -1e5, y: 1e5, toX: 1e5, toY: -1e5 }],
    ['band', { x: 1e5, y: 1e5, width: 0, softness: 0 }],
    ['frame', { inset: 50000, softness: 0, roundness: 100 }],
  ] as const)('%s far outside the frame and without size is defined', (kind, part) => {
    const values = render(maskOf(size, kind, part as never))
    expect(values.every((value) => value >= 0 && value <= 1)).toBe(true)
  })

  it('centres and lines follow the scene marks, and have their own place without them', () => {
    const light = { id: 'sun', name: 'Sun', x: 33, y: 44, colour: '#ffcc88', strength: 100, radius: 9 }
    const marks: SceneMarks = { ...noMarks, lights: [light], horizon: { y: 90, turn: 0 }, focal: { x: 5, y: 6 } }
    const ellipse = maskOf(size, 'ellipse', { x: 1, y: 2 })
    expect(ellipseCentre({ ...ellipse, follows: 'sun' }, marks)).toMatchObject({ x: 33, y: 44 })
    expect(ellipseCentre({ ...ellipse, follows: 'a light that is gone' }, marks)).toMatchObject({ x: 33, y: 44 })
    expect(ellipseCentre({ ...ellipse, follows: 'sun' }, noMarks)).toEqual({ x: 1, y: 2 })
    const line = maskOf(size, 'line', { x: 10, y: 20, toX: 10, toY: 60, follows: 'horizon' })
    expect(lineEnds(line, marks, size)).toEqual({ x: 120, y: 70, toX: 120, toY: 110 })
    expect(lineEnds(line, noMarks, size)).toMatchObject({ x: 10, y: 20, toX: 10, toY: 60 })
  })
})

const corner = (x: number, y: number): OutlineCorner => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })
const outline = (...points: [number, number][]) => ({ hole: false, corners: points.map(([x, y]) => corner(x, y)) })

/** Winding number of a closed polygon around a place, by crossings of a ray to the left. */
function winding(points: readonly OutlineCorner[], x: number, y: number): number {
  return points.reduce((sum, a, i) => {
    const b = points[(i + 1) % points.length]!
    if (a.y <= y === b.y <= y) return sum
    return a.x + ((y - a.y) * (b.x - a.x)) / (b.y - a.y) < x ? sum + (b.y > a.y ? 1 : -1) : sum
  }, 0)
}

describe('outlines', () => {
  const star: [number, number][] = [0, 2, 4, 1, 3].map((i) => [
    120 + 70 * Math.sin((2 * Math.PI * i) / 5 + 0.2),
    80 - 70 * Math.cos((2 * Math.PI * i) / 5 + 0.2),
  ])

  it.each([
    [
      'a triangle with slanting sides',
      [
        [20.3, 10.7],
        [200.2, 60.4],
        [70.9, 150.1],
      ] as [number, number][],
    ],
    ['a five-pointed star that crosses itself', star],
    [
      'an eight, crossed once',
      [
        [40, 30],
        [200, 130],
        [200, 30],
        [40, 130],
      ] as [number, number][],
    ],
    [
      'corners far outside',
      [
        [-90000, -90000],
        [90000, 20],
        [50, 90000],
      ] as [number, number][],
    ],
  ])('%s is filled by the non-zero rule, edges by their coverage', (_, points) => {
    const path = outline(...points)
    const expected = each((x, y) => {
      let inside = 0
      for (let i = 0; i < 16; i++) {
        for (let j = 0; j < 16; j++) inside += winding(path.corners, x - 0.5 + (i + 0.5) / 16, y - 0.5 + (j + 0.5) / 16) === 0 ? 0 : 1
      }
      return inside / 256
    })
    const found = render(maskOf(size, 'outline', { paths: [path] }))
    // 16 x 16 samples know a coverage within about 1/16 along one edge.
    expect(greatestDifference(found, expected)).toBeLessThan(0.07)
    const mean = (values: ArrayLike<number>) => Array.from(values).reduce((sum, value) => sum + value, 0) / values.length
    expect(mean(found)).toBeCloseTo(mean(expected), 3)
  })

  it('a hole is cut out, whatever way round it is drawn', () => {
    const around = outline([40, 20], [200, 20], [200, 140], [40, 140])
    for (const points of [
      [
        [80, 50],
        [80, 110],
        [160, 110],
        [160, 50],
      ],
      [
        [80, 50],
        [160, 50],
        [160, 110],
        [80, 110],
      ],
    ] as [number, number][][]) {
      const found = render(maskOf(size, 'outline', { paths: [around, { ...outline(...points), hole: true }] }))
      expect([found[80 * 240 + 120], found[80 * 240 + 60], found[5]]).toEqual([0, 1, 0])
    }
  })

  it('Bézier sides follow their curve: four of them make a circle', () => {
    // Handles of 0.5523 radii: common practice, no source; off a circle by less than 0.03 %.
    const k = 60 * 0.5523
    const at = (x: number, y: number, dx: number, dy: number): OutlineCorner => ({ x, y, inX: -dx, inY: -dy, outX: dx, outY: dy })
    const corners = [at(180, 80, 0, k), at(120, 140, -k, 0), at(60, 80, 0, -k), at(120, 20, k, 0)]
    const found = render(maskOf(size, 'outline', { paths: [{ hole: false, corners }] }))
    const area = found.reduce((sum, value) => sum + value, 0)
    expect(area / (Math.PI * 60 * 60)).toBeGreaterThan(0.998)
    expect(area / (Math.PI * 60 * 60)).toBeLessThan(1.002)
  })

  it('of fewer than three corners is empty', () => {
    expect(Math.max(...render(maskOf(size, 'outline', { paths: [outline([10, 10], [200, 100])] })))).toBe(0)
  })
})

const stroke = (part: Partial<BrushStroke>): BrushStroke => ({
  size: 30,
  hardness: 50,
  flow: 100,
  level: 100,
  pressure: 'nothing',
  erase: false,
  guides: [],
  tolerance: 12,
  points: [40, 40, 1, 180, 110, 1],
  ...part,
})

/** One stroke over black, by its definition: the greatest of all discs along all its pieces. */
function strokeByDefinition({ points, size: diameter, hardness, pressure }: BrushStroke, x: number, y: number): number {
  let most = 0
  for (let i = 0; i + 5 < points.length; i += 3) {
    const [ax, ay, ap, bx, by, bp] = points.slice(i, i + 6) as [number, number, number, number, number, number]
    const squared = (bx - ax) ** 2 + (by - ay) ** 2
    const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / squared))
    const force = ap + t * (bp - ap)
    const radius = (diameter / 2) * (pressure === 'size' || pressure === 'both' ? force : 1)
    const strength = pressure === 'flow' || pressure === 'both' ? force : 1
    const soft = radius * (1 - hardness / 100)
    const distance = Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay))
    most = Math.max(most, strength * fall((distance - (radius - soft)) / soft))
  }
  return most
}

describe('brush strokes', () => {
  it.each(['nothing', 'size', 'flow', 'both'] as const)('with pressure on %s are discs moved along their points', (pressure) => {
    const one = stroke({ pressure, hardness: 30, size: 50, points: [30, 30, 0.4, 120, 60, 1, 200, 130, 0.7] })
    const expected = each((x, y) => strokeByDefinition(one, x, y))
    expect(greatestDifference(render(maskOf(size, 'brush', { strokes: [one] })), expected)).toBeLessThan(0.004)
  })

  it('flow builds up, level is what they tend to, the eraser takes away', () => {
    const middle = 75 * 240 + 110
    const at = (...strokes: BrushStroke[]) => render(maskOf(size, 'brush', { strokes }))[middle]
    expect(at(stroke({ flow: 40 }))).toBeCloseTo(0.4, 5)
    expect(at(stroke({ flow: 40 }), stroke({ flow: 40 }))).toBeCloseTo(0.64, 5)
    expect(at(stroke({}), stroke({ level: 30 }))).toBeCloseTo(0.3, 5)
    expect(at(stroke({}), stroke({ erase: true, flow: 75 }))).toBeCloseTo(0.25, 5)
  })

  it('a new stroke leaves what the earlier ones were computed to', () => {
    const random = randomNumbers(5)
    const strokes = Array.from({ length: 40 }, () => stroke({ points: Array.from({ length: 6 }, () => random() * 150) }))
    render(maskOf(size, 'brush', { strokes }))
    const before = evaluator.runs
    render(maskOf(size, 'brush', { strokes: [...strokes, stroke({})] }))
    expect(evaluator.runs - before).toBe(1)
  })

  it('of one point is a dot, and of thousands of points is drawn', () => {
    const dot = render(maskOf(size, 'brush', { strokes: [stroke({ points: [120, 80, 1] })] }))
    expect([dot[80 * 240 + 120], dot[80 * 240 + 150]]).toEqual([1, 0])
    const random = randomNumbers(9)
    const points = Array.from({ length: 4000 }, () => [random() * 240, random() * 160, random()]).flat()
    expect(Math.min(...render(maskOf(size, 'brush', { strokes: [stroke({ points })] })))).toBeGreaterThan(0.99)
  })
})
