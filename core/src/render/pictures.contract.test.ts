import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import { everything } from '../../test-support/sampled'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import type { LuminosityMask } from '../masks/luminosity/definition'
import { mixModes } from '../operations/mixing/mix/mixModes'
import type { PhotoData } from '../photo/photoData'
import type { PictureSource } from './pictureSource'
import { sceneGraph } from './sceneGraph'
import { operations } from '../operations/registry'

let kernels: Kernels
let evaluator: Evaluator
let photo: PhotoData
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', 1200, 800, samplePixels(1200, 800))
  evaluator = evaluatorFor(kernels, photo)
})

/** Bytes: too few for what tiles share of eight soft focuses. */
const LITTLE = 13e6

const effect = (look: string, change?: (effect: Effect) => void): Effect => {
  // Values for a photo of 6 megapixels on a small one: streaks as large as people see them at 1:1.
  const made = newEffect({ width: 3000, height: 2000 }, { kind: 'rain', look, id: look })
  const controls = made.controls as { pattern: { density: number } }
  controls.pattern.density *= (1200 * 800) / 6e6
  change?.(made)
  return made
}

const brights: Partial<LuminosityMask> = { curve: 'brights', steepness: 2, tonesFrom: 'beneath', feather: 12 }

const stacks: Record<string, () => Effect[]> = {
  'steady rain': () => [effect('steady-rain')],
  drizzle: () => [effect('drizzle')],
  downpour: () => [effect('downpour')],
  'driving rain, full amount, no mask': () => [
    effect('driving-rain', (one) => Object.assign(one, { mix: { ...one.mix, amount: 100 }, where: { masks: [], hold: 100 } })),
  ],
  'pinched, blurred, turned': () => [
    effect('downpour', ({ controls }) =>
      Object.assign(controls.shape, { black: 12, white: 50, gamma: 1.4, blur: 1.5, turn: 20, enlarge: 140, moveX: 31, moveY: -17 }),
    ),
  ],
  'two layers, soft light and linear addition, masks of beneath': () => [
    effect('steady-rain', (one) => Object.assign(one.mix, { mode: 'soft-light', amount: 80 })),
    effect('downpour', (one) => {
      Object.assign(one.where.masks[0]!, brights)
      Object.assign(one.mix, { mode: 'plus-lighter', linear: true })
    }),
  ],
  'dark streaks': () => [
    effect('downpour', (one) => Object.assign(one, { colour: { tint: '#203040' }, mix: { mode: 'multiply', amount: 90, linear: false } })),
  ],
}

const source = (effects: Effect[]): PictureSource => ({ photo, effects })

describe('rendering contract', () => {
  it.each(Object.keys(stacks))('%s: a preview is the reduced export', (name) => {
    const node = sceneGraph(source(stacks[name]!()))
    const full = renderAll(evaluator, node, photo)
    for (const factor of everything ? [2, 4, 8] : [2, 8]) {
      const found = compareColours(reduceInLinearLight(full, factor), renderAll(evaluator, node, photo, 1 / factor))
      expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1)
      expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4)
    }
  })

  it('two photos of one aspect do not take each other’s values', () => {
    // On grids of the same pixels, whose pixels are not as wide.
    const half = photoFrom(kernels, 'half', 600, 400, samplePixels(600, 400, 2))
    const both = evaluatorFor(kernels, photo, half)
    const draw = (evaluators: readonly Evaluator[]) =>
      ([photo, half] as const).map((one, i) =>
        renderAll(evaluators[i]!, sceneGraph({ photo: one, effects: stacks['downpour']!() }), one, 600 / one.width),
      )
    const [large, small] = draw([both, both])
    const [largeAlone, smallAlone] = draw([evaluatorFor(kernels, photo), evaluatorFor(kernels, half)])
    expect(Buffer.compare(Buffer.from(large!.pixels), Buffer.from(largeAlone!.pixels))).toBe(0)
    expect(Buffer.compare(Buffer.from(small!.pixels), Buffer.from(smallAlone!.pixels))).toBe(0)
  })

  it.each(Object.keys(stacks))('%s: any tiles give identical bytes', (name) => {
    const node = sceneGraph(source(stacks[name]!()))
    for (const scale of everything ? [1, 0.5, 0.37] : [1, 0.37]) {
      const region = { x: 211, y: 97, width: 420, height: 350 }
      const whole = renderAll(evaluator, node, photo, scale, 4096, region)
      for (const tile of everything ? [64, 100, 256, 333] : [64, 333]) {
        expect(
          Buffer.compare(Buffer.from(whole.pixels), Buffer.from(renderFresh(kernels, [photo], node, photo, scale, tile, region).pixels)),
          `tile ${tile}, scale ${scale}`,
        ).toBe(0)
      }
    }
  })

  it('a region is cut from the whole picture', () => {
    const node = sceneGraph(source(stacks['downpour']!()))
    const whole = renderAll(evaluator, node, photo, 0.5)
    const part = renderAll(evaluator, node, photo, 0.5, 4096, { x: 100, y: 60, width: 200, height: 120 })
    expect([part.width, part.height]).toEqual([100, 60])
    for (let y = 0; y < part.height; y++) {
      const from = ((30 + y) * whole.width + 50) * 4
      expect(part.pixels.slice(y * 400, y * 400 + 400)).toEqual(whole.pixels.slice(from, from + 400))
    }
  })

  it('without effects the export is the photo, byte for byte', () => {
    expect(Buffer.from(renderAll(evaluator, sceneGraph(source([])), photo).pixels).equals(Buffer.from(samplePixels(1200, 800)))).toBe(true)
  })

  it('where the mask is shut the photo stays byte for byte, where it is open it does not', () => {
    const shut = effect('downpour', (one) => {
      Object.assign(one.where.masks[0]!, { handles: [0.55, 0.6, 1, 1], feather: 0 })
      one.where.hold = 100
    })
    const found = renderAll(evaluator, sceneGraph(source([shut])), photo).pixels
    const before = samplePixels(1200, 800)
    let [changed, spoiled] = [0, 0]
    for (let i = 0; i < found.length; i += 4) {
      const same = found[i] === before[i] && found[i + 1] === before[i + 1] && found[i + 2] === before[i + 2]
      const luma = (0.2126 * before[i]! + 0.7152 * before[i + 1]! + 0.0722 * before[i + 2]!) / 255
      if (same) continue
      if (luma < 0.5499) spoiled++
      else changed++
    }
    expect(spoiled).toBe(0)
    expect(changed).toBeGreaterThan(2000)
  })

  it('a mask that reads the photo does not change when only its own effect changes', () => {
    const mask = (one: Effect) => sceneGraph(source([effect('drizzle'), one]), { kind: 'step', effectId: one.id, step: 'where' }).key
    expect(mask(effect('downpour'))).toBe(mask(effect('downpour', (one) => Object.assign(one.mix, { amount: 10 }))))
  })

  it('changing the top effect computes the top effect only', () => {
    const fresh = evaluatorFor(kernels, photo)
    const beneath = Array.from({ length: 12 }, (_, i) => effect('drizzle', (one) => Object.assign(one, { id: `beneath ${i}` })))
    const render = (amount: number) =>
      renderAll(fresh, sceneGraph(source([...beneath, effect('downpour', (one) => void (one.mix.amount = amount))])), photo, 0.25)
    render(50)
    const before = fresh.runs
    render(60)
    expect(fresh.runs - before).toBe(1)
  })

  // By age alone all that tiles share would go just before the next one reads it: a file of twenty such effects never came to its end.
  it('where what tiles share does not fit into memory, a file of many wide effects computes little more than where it does', () => {
    const wide = ['veil', 'dream-bloom', 'silk', 'dark-and-light'].flatMap((look, i) =>
      [1, 2].map((k) => newEffect({ width: 3000, height: 2000 }, { kind: 'softFocus', look, id: `${look} ${i} ${k}` })),
    )
    wide.forEach((one, i) => (one.mix.amount = 20 + i))
    const node = sceneGraph(source(wide))
    const ran = (bytes: number): { readonly runs: number; readonly pixels: Uint8ClampedArray } => {
      const one = new Evaluator({ kernels, operations, store: bytes })
      one.addPhoto(photo)
      const { pixels } = renderAll(one, node, photo, 1, 160, { x: 0, y: 0, width: 480, height: 320 }, 'nothing')
      return { runs: one.runs, pixels }
    }
    const [plenty, little] = [ran(1e9), ran(LITTLE)]
    expect(Buffer.compare(Buffer.from(little.pixels), Buffer.from(plenty.pixels))).toBe(0)
    expect(little.runs).toBeLessThan(2 * plenty.runs)
  })

  it.each([12, 5])(
    'where the pictures of all effects do not fit into memory, changing effect %i again computes what is above it only',
    (place) => {
      const tight = new Evaluator({ kernels, operations, store: 3e6 })
      tight.addPhoto(photo)
      const render = (amount: number): number => {
        const before = tight.runs
        const effects = Array.from({ length: 13 }, (_, i) =>
          effect('drizzle', (one) => Object.assign(one, { id: `${i}`, mix: { ...one.mix, amount: i === place ? amount : 50 } })),
        )
        const rather = sceneGraph(source(effects), { kind: 'beneath', effectId: `${place}` }).key
        renderAll(tight, sceneGraph(source(effects)), photo, 0.25, 64, undefined, { rather })
        return tight.runs - before
      }
      // In each of 20 tiles the photo is read, five operations draw the rain, which is the same for all, and each effect is mixed once.
      const tiles = 20
      expect(render(50)).toBeGreaterThanOrEqual(tiles * (1 + 5 + 13))
      render(60)
      // Of what tiles share a block goes now and then.
      for (const amount of [70, 80]) expect(render(amount)).toBeLessThanOrEqual(tiles * (5 + 13 - place + 1))
      expect(tight.bytesHeld).toBeLessThanOrEqual(3e6)
    },
  )

  it.each(mixModes)('%s renders at full and reduced size alike', (mode) => {
    const node = sceneGraph(source([effect('downpour', (one) => void (one.mix.mode = mode))]))
    const region = { x: 160, y: 160, width: 320, height: 240 }
    const full = renderAll(evaluator, node, photo, 1, 4096, region)
    const found = compareColours(reduceInLinearLight(full, 4), renderAll(evaluator, node, photo, 0.25, 4096, region))
    expect(found.mean).toBeLessThan(1)
    expect(found.percentile99).toBeLessThan(4)
  })

  it.each(['pattern', 'shape', 'colour', 'where', 'mix'] as const)('the step %s can be looked at', (step) => {
    const one = effect('downpour')
    const { pixels } = renderAll(evaluator, sceneGraph(source([one]), { kind: 'step', effectId: one.id, step }), photo, 0.1)
    expect(new Set(pixels).size).toBeGreaterThan(8)
  })

  it('an effect that is off or has no amount changes nothing', () => {
    const off = effect('downpour', (one) => void (one.on = false))
    const none = effect('downpour', (one) => void (one.mix.amount = 0))
    expect(sceneGraph(source([off, none])).key).toBe(sceneGraph(source([])).key)
  })
})
