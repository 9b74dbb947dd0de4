import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, decodeSrgb, reduceInLinearLight } from '../../test-support/colourDifference'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { planeOf } from '../../test-support/masks'
import { everyNth, sampled } from '../../test-support/sampled'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import type { DepthPicture } from '../model/depth'
import { noMarks } from '../model/marks'
import { discsNode, type DiscParameters } from '../operations/sources/discs/discs'
import type { PhotoData } from '../photo/photoData'
import { distanceNode } from '../render/sceneDepth'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'
import { definitionOf, effectDefinitions, type Effect, type EffectKind } from './registry'

const size = { width: 960, height: 640 }
const depth: DepthPicture = {
  picture: { id: 'depth', fileName: 'depth.png', width: 960, height: 640 },
  near: 'white',
  nearDistance: 2,
  farDistance: 2000,
  steps: 'inverse',
}

let kernels: Kernels
let photo: PhotoData
let depthData: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  const codes = Array.from({ length: size.width * size.height }, (_, i) => {
    const code = Math.max(0, (255 * (Math.floor(i / size.width) - 200)) / 439)
    return [code, code, code, 255]
  }).flat()
  depthData = photoFrom(kernels, 'depth', size.width, size.height, codes)
  evaluator = evaluatorFor(kernels, photo, depthData)
})

const mean = (values: ArrayLike<number>): number => Array.from(values).reduce((sum, value) => sum + value, 0) / values.length

function correlation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const [ma, mb] = [mean(a), mean(b)]
  const sum = (f: (i: number) => number) => Array.from(a).reduce<number>((total, _, i) => total + f(i), 0)
  return sum((i) => (a[i]! - ma) * (b[i]! - mb)) / Math.sqrt(sum((i) => (a[i]! - ma) ** 2) * sum((i) => (b[i]! - mb) ** 2))
}

const looks = effectDefinitions
  .filter(({ family, madeFromEffect }) => !madeFromEffect && family === 'weather')
  .flatMap(({ kind, startingLooks }) => sampled(startingLooks).map(({ id }) => [kind, id] as const))

/** Values for a photo as large as people see it at 1:1, as few as there is room for. */
function effectOf(kind: EffectKind, look: string, change?: (effect: Effect) => void): Effect {
  const made = newEffect({ width: 2400, height: 1600 }, { kind, look, id: look })
  const { pattern } = made.controls as { pattern: { density?: number; count?: number } }
  const part = (size.width * size.height) / (2400 * 1600)
  if (['rain', 'snow', 'stars'].includes(kind) && pattern.density !== undefined) pattern.density *= part
  if (kind === 'lensDrops' && pattern.count !== undefined) pattern.count = Math.round(pattern.count * part)
  change?.(made)
  return made
}

describe('each starting look of the weather keeps the rendering contract', () => {
  it.each(everyNth(looks, 2))('%s, %s: a preview is the reduced export, and any tiles give identical bytes', (kind, look) => {
    const node = sceneGraph({ photo, effects: [effectOf(kind, look)], depth })
    const full = renderAll(evaluator, node, size)
    for (const factor of [2, 4, 8]) {
      const found = compareColours(reduceInLinearLight(full, factor), renderAll(evaluator, node, size, 1 / factor))
      expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1)
      expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4)
    }
    const region = { x: 205, y: 97, width: 420, height: 350 }
    for (const scale of [1, 0.37]) {
      const whole = renderAll(evaluator, node, size, scale, 4096, region)
      const tiled = renderFresh(kernels, [photo, depthData], node, size, scale, 101, region)
      expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `scale ${scale}`).toBe(0)
    }
  })

  it.each(looks)('%s, %s: its mean brightness does not depend on the scale', (kind, look) => {
    const { controls } = effectOf(kind, look)
    const field = definitionOf(kind).pattern(controls, { ...effectScene(size), distance: distanceNode(size, noMarks, depth) })
    const full = mean(planeOf(evaluator, field, size))
    expect(full).toBeGreaterThan(0)
    for (const scale of [0.5, 0.25, 0.125])
      expect(Math.abs(mean(planeOf(evaluator, field, size, scale)) / full - 1), `${scale}`).toBeLessThan(0.05)
  })
})

describe('haze', () => {
  /** Contrast of a black and white edge, in linear light, at a distance, against the one without haze. */
  function contrastAt(distance: number, visibility: number, start: number): number {
    const one = effectOf('haze', 'grey-day', (effect) => {
      Object.assign((effect.controls as { pattern: object }).pattern, { visibility, start })
      Object.assign((effect.controls as { shape: object }).shape, { unevenness: 0, height: 100, fallOff: 0 })
      effect.mix.amount = 100
    })
    const side = { width: 8, height: 8 }
    const stripes = photoFrom(
      kernels,
      'stripes',
      8,
      8,
      Array.from({ length: 64 }, (_, i) => (i % 8 < 4 ? [20, 20, 20, 255] : [230, 230, 230, 255])).flat(),
    )
    const flat = photoFrom(kernels, 'flat', 8, 8, new Array(64).fill([0, 0, 0, 255]).flat())
    // Whatever its code, everything is at this distance.
    const exact = { ...depth, picture: { ...depth.picture, id: 'flat' }, nearDistance: distance, farDistance: distance }
    const node = sceneGraph({ photo: { id: 'stripes', ...side }, effects: [one], depth: exact })
    const values = planeOf(evaluatorFor(kernels, stripes, flat), node, side)
    const light = (x: number) => decodeSrgb(values[8 * 4 + x]!)
    return (light(6) - light(1)) / (decodeSrgb(230 / 255) - decodeSrgb(20 / 255))
  }

  // Koschmieder 1924; meteorological optical range: 5 %, WMO guide no. 8; 2 % at 3.912 / extinction. From memory.
  it.each([200, 1500, 12000])(
    'of %d m visibility leaves a twentieth of a contrast there, a fiftieth at 1.306 times as far, all of it in the clear',
    (visibility) => {
      expect(contrastAt(visibility, visibility, 0)).toBeCloseTo(0.05, 2)
      expect(contrastAt((visibility * 3.912) / 2.996, visibility, 0)).toBeCloseTo(0.02, 2)
      expect(contrastAt(visibility / 2, visibility, 0)).toBeCloseTo(Math.sqrt(0.05), 2)
      expect(contrastAt(40, visibility, 50)).toBeCloseTo(1, 2)
    },
  )

  it('taken out again leaves the photo as it was', () => {
    const laid = effectOf('haze', 'grey-day', (effect) => {
      Object.assign((effect.controls as { shape: object }).shape, { unevenness: 0 })
      Object.assign((effect.controls as { pattern: object }).pattern, { visibility: 3000, start: 5 })
    })
    const taken = structuredClone(laid)
    taken.id = 'taken'
    Object.assign(taken.controls.pattern, { does: 'clear' })
    const plain = renderAll(evaluator, sceneGraph({ photo, effects: [], depth }), size).pixels
    const both = renderAll(evaluator, sceneGraph({ photo, effects: [laid, taken], depth }), size).pixels
    const once = renderAll(evaluator, sceneGraph({ photo, effects: [laid], depth }), size).pixels
    let [off, changed] = [0, 0]
    plain.forEach((value, i) => {
      off = Math.max(off, Math.abs(value - both[i]!))
      changed = Math.max(changed, Math.abs(value - once[i]!))
    })
    expect(off).toBeLessThanOrEqual(1)
    expect(changed).toBeGreaterThan(20)
  })

  // A pixel holds no more air than its darkest channel allows: the dark channel of He, Sun and Tang 2009, from memory.
  it('taken out where there is none blackens nothing: a blue sky stays blue, and with air left it stays paler', () => {
    const clear = (kept: number, colour = [60, 110, 190]) => {
      const codes = Uint8ClampedArray.from({ length: 64 * 64 * 4 }, (_, k) => [...colour, 255][k % 4]!)
      const blue = photoFrom(kernels, colour.join(' '), 64, 64, codes)
      const effect = newEffect(blue, { kind: 'haze', look: 'clearer-air', id: 'clear' })
      Object.assign(effect.controls.pattern, { visibility: 1 })
      Object.assign(effect.controls.shape, { kept, height: 0, fallOff: 0 })
      const source = { photo: blue, effects: [{ ...effect, mix: { ...effect.mix, amount: 100 } }] }
      return [...renderAll(evaluatorFor(kernels, blue), sceneGraph(source), blue).pixels.slice(-4, -1)]
    }
    expect(Math.max(...clear(0)), 'all of it').toBe(0)
    expect(Math.max(...clear(0, [0, 110, 190])), 'where one colour is 0 too').toBe(0)
    const [red = 0, green = 0, brightest = 0] = clear(2)
    expect(red).toBeLessThan(12)
    expect(green).toBeGreaterThan(40)
    expect(brightest).toBeGreaterThan(150)
    const [paler = 0] = clear(40)
    expect(paler).toBeGreaterThan(20)
    expect(paler).toBeLessThan(60)
  })

  it('drawn over the distance is what was drawn, with straight lines between', () => {
    const made = effectOf('haze', 'grey-day', (effect) => {
      Object.assign((effect.controls as { pattern: object }).pattern, { by: 'curve', at10: 0, at32: 20, at100: 60, at320: 60, at1000: 90 })
    })
    const at = (metres: number): number => {
      const region = {
        id: 'r',
        name: 'R',
        distance: metres,
        softness: 0,
        corners: [
          [0, 0],
          [99, 0],
          [99, 99],
          [0, 99],
        ].map(([x = 0, y = 0]) => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })),
      }
      const distance = distanceNode(size, { ...noMarks, regions: [region] }, null)
      return planeOf(evaluator, definitionOf('haze').pattern(made.controls, { ...effectScene(size), distance }), size)[50 * 960 + 50]!
    }
    expect(at(3)).toBeCloseTo(0, 4)
    expect(at(10 ** 1.5)).toBeCloseTo(0.2, 3)
    expect(at(10 ** 1.75)).toBeCloseTo(0.4, 3)
    expect(at(200)).toBeCloseTo(0.6, 3)
    expect(at(1000)).toBeCloseTo(0.9, 3)
  })

  it('bluer with distance, when that is asked for', () => {
    const blueAt = (blueing: number) => {
      const made = effectOf('haze', 'grey-day', (effect) => {
        effect.colour.tint = '#c0c0c0'
        Object.assign((effect.controls as { shape: object }).shape, { blueing, unevenness: 0 })
      })
      const picture = renderAll(
        evaluator,
        sceneGraph({ photo, effects: [made], depth }, { kind: 'alone', effectId: 'grey-day' }),
        size,
      ).pixels
      return (y: number) => picture[4 * (y * 960 + 480) + 2]! / Math.max(1, picture[4 * (y * 960 + 480)]!)
    }
    expect(blueAt(0)(201)).toBeCloseTo(1, 1)
    expect(blueAt(100)(201)).toBeGreaterThan(1.15)
    expect(blueAt(100)(201)).toBeGreaterThan(blueAt(100)(420))
  })

  it('is thicker on what is farther', () => {
    const field = definitionOf('haze').pattern(effectOf('haze', 'grey-day').controls, {
      ...effectScene(size),
      distance: distanceNode(size, noMarks, depth),
    })
    const values = planeOf(evaluator, field, size)
    for (const y of [250, 350, 450, 550]) expect(values[y * 960 + 480]!).toBeGreaterThan(values[(y + 60) * 960 + 480]!)
  })

  it('has a distance without a depth picture too: that of level ground under the horizon', () => {
    const marks = { ...noMarks, horizon: { y: 200, turn: 0 } }
    const metres = planeOf(evaluator, distanceNode(size, marks, null), size)
    // Pinhole geometry: eye 1.7 m, focal length 28 mm on 36 mm.
    for (const y of [210, 300, 639]) expect(metres[y * 960 + 100]! / ((1.7 * (28 / 36) * 960) / (y + 0.5 - 200))).toBeCloseTo(1, 4)
    expect(metres[150 * 960]!).toBe(20000)
  })
})

describe('fog', () => {
  const banks = (seed: number, layers: number) => {
    const { controls } = effectOf('fog', 'morning-fog', (effect) =>
      Object.assign((effect.controls as { pattern: object }).pattern, { seed, layers, scale: 90 }),
    )
    return planeOf(evaluator, definitionOf('fog').pattern(controls, effectScene(size)), size, 0.25)
  }

  it('another seed and another bank are other clouds', () => {
    expect(Math.abs(correlation(banks(1, 1), banks(2, 1)))).toBeLessThan(0.3)
    const first = banks(1, 1)
    const second = banks(1, 2).map((value, i) => 1 - (1 - value) / Math.max(1e-6, 1 - first[i]!))
    expect(Math.abs(correlation(first, second))).toBeLessThan(0.3)
  })

  it('lies on the ground: nothing of it above its height, all of it below', () => {
    const marks = { ...noMarks, horizon: { y: 320, turn: 0 } }
    const { controls } = effectOf('fog', 'ground-mist', (effect) =>
      Object.assign((effect.controls as { shape: object }).shape, { height: 10, fallOff: 10, byDistance: 0 }),
    )
    const shaped = planeOf(evaluator, definitionOf('fog').contribute(controls, effectScene(size, marks), [1, 1, 1]).field, size)
    const raw = planeOf(evaluator, definitionOf('fog').pattern(controls, effectScene(size, marks)), size)
    // Ten percent of the height above the horizon, fading over ten percent.
    for (const x of [10, 480, 950]) {
      expect(shaped[200 * 960 + x]).toBe(0)
      expect(shaped[500 * 960 + x]! / raw[500 * 960 + x]!).toBeCloseTo(1, 4)
    }
  })
})

describe('discs', () => {
  const params: DiscParameters = {
    seed: 5,
    spacing: 60,
    radius: 14,
    radiusVariation: 0.4,
    softness: 0.5,
    rim: 0.2,
    length: 0,
    angle: 90,
    brightness: 0.5,
    brightnessVariation: 0.5,
    shiftX: 0,
    shiftY: 0,
  }
  const field = (part: Partial<DiscParameters>, scale = 1) => planeOf(evaluator, discsNode({ ...params, ...part }), size, scale)

  it('are as many as their spacing says, whatever their size', () => {
    // Light of one disc of radius r and even brightness, its rim falling over half of it: counted from a single wide-spaced one by its mean.
    const alone = { radiusVariation: 0, brightnessVariation: 0, rim: 0 }
    const light = (spacing: number) => mean(field({ ...alone, spacing })) * spacing ** 2
    expect(light(40) / light(80)).toBeGreaterThan(0.8)
    expect(light(40) / light(80)).toBeLessThan(1.25)
    const whole = (seed: number) => mean(field({ ...alone, seed, softness: 0.02, spacing: 30 }))
    const expected = (0.5 * Math.PI * 14 ** 2 * 0.98) / 30 ** 2
    expect(mean([1, 2, 3].map(whole)) / expected).toBeGreaterThan(0.93)
    expect(mean([1, 2, 3].map(whole)) / expected).toBeLessThan(1.07)
  })

  it('keep their light when they move and when they are smaller than a pixel', () => {
    const [still, moving] = [mean(field({ spacing: 30 })), mean(field({ spacing: 30, length: 25 }))]
    expect(moving / still).toBeGreaterThan(0.85)
    expect(moving / still).toBeLessThan(1.15)
    const small = { radius: 1.2, spacing: 9, radiusVariation: 0, length: 0 }
    expect(mean(field(small, 0.125)) / mean(field(small))).toBeGreaterThan(0.9)
    expect(mean(field(small, 0.125)) / mean(field(small))).toBeLessThan(1.1)
  })

  it('none or a huge one is defined', () => {
    expect(field({ spacing: 1e6 }).every((value) => value <= 1)).toBe(true)
    expect(field({ radius: 5000, spacing: 4000 }).every(Number.isFinite)).toBe(true)
  })
})
