import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { maskOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import { everyNth, everything } from '../../test-support/sampled'
import { newEffect } from '../effects/newEffect'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import { maskSchemaOf, type Mask } from '../masks/registry'
import { schemaAt } from '../model/controls'
import type { DepthPicture } from '../model/depth'
import { spanOf } from '../model/span'
import type { PhotoData } from '../photo/photoData'
import type { PictureSource } from './pictureSource'
import { sceneGraph } from './sceneGraph'

const size = { width: 960, height: 640 }
const depth: DepthPicture = {
  picture: { id: 'depth', fileName: 'depth.png', width: 480, height: 320 },
  near: 'white',
  nearDistance: 2,
  farDistance: 200,
  steps: 'inverse',
}

let kernels: Kernels
let photo: PhotoData
let depthData: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  const slope = Array.from({ length: 480 * 320 }, (_, i) =>
    Array.from({ length: 4 }, (_, c) => (c < 3 ? (Math.floor(i / 480) * 255) / 319 : 255)),
  ).flat()
  depthData = photoFrom(kernels, 'depth', 480, 320, slope)
  evaluator = evaluatorFor(kernels, photo, depthData)
})

const corner = (x: number, y: number, dx = 0, dy = 0) => ({ x, y, inX: -dx, inY: -dy, outX: dx, outY: dy })
const strokes = [
  {
    size: 120,
    hardness: 40,
    flow: 80,
    level: 100,
    pressure: 'both',
    erase: false,
    guides: [],
    tolerance: 12,
    points: [100, 120, 0.5, 400, 300, 1, 800, 200, 0.7],
  },
  {
    size: 60,
    hardness: 90,
    flow: 100,
    level: 100,
    pressure: 'nothing',
    erase: true,
    guides: [],
    tolerance: 12,
    points: [300, 100, 1, 420, 500, 1],
  },
  {
    size: 9,
    hardness: 0,
    flow: 100,
    level: 60,
    pressure: 'size',
    erase: false,
    guides: [],
    tolerance: 12,
    points: [50, 600, 0.2, 900, 420, 1],
  },
] as const

const guides = [
  { x: 100, y: 120, colour: '#7d87a0' },
  { x: 400, y: 300, colour: '#8a90a4' },
  { x: 640, y: 240, colour: '#30343c' },
]

/** One mask of each kind, and what every kind may have besides. */
const masks: Record<string, () => Mask> = {
  'luminosity of beneath': () => maskOf(size, 'luminosity', { tonesFrom: 'beneath', curve: 'mids', steepness: 1.5 }),
  'luminosity of this effect': () => maskOf(size, 'luminosity', { tonesFrom: 'effect', curve: 'darks' }),
  'luminosity of a pinned state': () => maskOf(size, 'luminosity', { tonesFrom: 'pinned', pinned: 'pin', channel: 'lightness' }),
  'luminosity by a free curve': () =>
    maskOf(size, 'luminosity', {
      free: [
        { x: 0, y: 0.9 },
        { x: 0.35, y: 0.1 },
        { x: 0.6, y: 1 },
        { x: 1, y: 0.4 },
      ],
    }),
  colour: () => maskOf(size, 'colour', { hue: 260, width: 70, chromaFrom: 3, softness: 60 }),
  ellipse: () => maskOf(size, 'ellipse', { x: 400, y: 300, turn: 25 }),
  line: () => maskOf(size, 'line', { x: 100, y: 100, toX: 500, toY: 420 }),
  'band with hard edges': () => maskOf(size, 'band', { x: 480, y: 320, turn: 12, width: 150, softness: 0 }),
  'frame edge, outside': () => maskOf(size, 'frame', { invert: true }),
  outline: () =>
    maskOf(size, 'outline', {
      paths: [
        { hole: false, corners: [corner(200, 100, 90, -40), corner(800, 180, 30, 90), corner(500, 560, -120, 10)] },
        { hole: true, corners: [corner(450, 200), corner(600, 220), corner(520, 360)] },
      ],
    }),
  brush: () => maskOf(size, 'brush', { strokes: structuredClone(strokes) as never }),
  'brush that stops at edges': () => maskOf(size, 'brush', { strokes: [{ ...structuredClone(strokes[0]), guides }] as never }),
  similar: () => maskOf(size, 'similar', { taps: [{ x: 480, y: 500, colour: '#7d87a0' }], reachPlace: 500, reachColour: 30 }),
  cloud: () => maskOf(size, 'cloud', { scale: 130, stretch: 2, turn: 15, octaves: 7, contrast: 40 }),
  depth: () => maskOf(size, 'depth', { near: 4, far: 12, softness: 60 }),
  'another effect': () => maskOf(size, 'pattern', { effectId: 'beneath' }),
  picture: () => maskOf(size, 'picture', { picture: depth.picture }),
  'grown and feathered': () => maskOf(size, 'brush', { strokes: structuredClone(strokes) as never, grow: 13, feather: 6 }),
  shrunk: () => maskOf(size, 'brush', { strokes: structuredClone(strokes) as never, grow: -7.5 }),
  'following edges': () => maskOf(size, 'brush', { strokes: structuredClone(strokes) as never, edges: 18 }),
}

function sourceWith(mask: Mask): PictureSource {
  const rain = (id: string, look: string) => newEffect({ width: 2400, height: 1600 }, { kind: 'rain', look, id })
  const beneath = { ...rain('beneath', 'downpour'), mix: { mode: 'screen', amount: 30, linear: false } as const }
  const own = { ...rain('own', 'steady-rain'), colour: { tint: '#d8eaff', light: null, kelvin: null, lit: 0, ramp: null, balance: null } }
  own.where = { masks: [mask], hold: 85 }
  own.mix = { mode: 'screen', amount: 80, linear: false }
  ;(own.controls as { shape: { blur: number } }).shape.blur = 2
  const pinned = [{ id: 'pin', name: 'Before', effects: [beneath], groups: [], shared: [] }]
  return { photo, effects: [beneath, own], pinned, depth }
}

describe('each kind of mask keeps the rendering contract', () => {
  it.each(everyNth(Object.keys(masks), 2))('%s: a preview is the reduced export', (name) => {
    const node = sceneGraph(sourceWith(masks[name]!()))
    const full = renderAll(evaluator, node, size)
    for (const factor of everything ? [2, 4, 8] : [4]) {
      const found = compareColours(reduceInLinearLight(full, factor), renderAll(evaluator, node, size, 1 / factor))
      expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1)
      expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4)
    }
  })

  it.each(Object.keys(masks))('%s: any tiles give identical bytes', (name) => {
    const node = sceneGraph(sourceWith(masks[name]!()))
    for (const scale of everything ? [1, 0.37] : [0.37]) {
      const region = { x: 205, y: 97, width: 420, height: 350 }
      const whole = renderAll(evaluator, node, size, scale, 4096, region)
      for (const tile of everything ? [64, 101, 256] : [101]) {
        const tiled = renderFresh(kernels, [photo, depthData], node, size, scale, tile, region)
        expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `tile ${tile}, scale ${scale}`).toBe(0)
      }
    }
  })

  it.each(Object.keys(masks))('%s opens some of the picture and shuts some of it', (name) => {
    const { pixels } = renderAll(
      evaluator,
      sceneGraph(sourceWith(masks[name]!()), { kind: 'masks', of: { owner: 'own', list: 'where' }, maskId: masks[name]!().id }),
      size,
      0.25,
    )
    const greys = pixels.filter((_, i) => i % 4 === 0)
    expect(Math.max(...greys) - Math.min(...greys)).toBeGreaterThan(100)
  })

  it.each(Object.keys(masks))('%s: each of its numbers changes it', (name) => {
    const drawn = (mask: Mask) => Buffer.from(renderAll(evaluator, sceneGraph(sourceWith(mask)), size, 0.5).pixels)
    const mask = masks[name]!()
    const before = drawn(mask)
    const schema = maskSchemaOf(mask.kind)
    const idle = Object.keys(schema.shape).filter((key) => {
      const span = spanOf(schemaAt(schema, key), size)
      return span && span.every((value) => drawn({ ...mask, [key]: Math.round(value) }).equals(before))
    })
    // A free curve has no steepness to be shown.
    expect(idle).toEqual(mask.kind === 'luminosity' && mask.free ? ['steepness'] : [])
  })
})
