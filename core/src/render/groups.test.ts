import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { maskOf } from '../../test-support/masks'
import { blendOracle, mixOracle } from '../../test-support/mixOracle'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import type { Evaluator } from '../graph/evaluator'
import type { Kernels } from '../graph/operation'
import type { Group } from '../model/look'
import { noMarks } from '../model/marks'
import { mixModes, type MixMode } from '../operations/mixing/mix/mixModes'
import { plane } from '../operations/plane'
import type { PhotoData } from '../photo/photoData'
import { gridAt, gridBounds } from '../planes/grid'
import type { PictureSource } from './pictureSource'
import { EXAGGERATION, sceneGraph } from './sceneGraph'

type Triple = readonly [number, number, number]

const size = { width: 480, height: 320 }
let kernels: Kernels
let photo: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  evaluator = evaluatorFor(kernels, photo)
})

function rain(id: string, change?: Partial<Effect>): Effect {
  const made = newEffect({ width: 1200, height: 800 }, { kind: 'rain', look: 'downpour', id })
  return { ...made, where: { masks: [], hold: 100 }, group: 'g', ...change } as Effect
}

function group(change: Partial<Group> = {}): Group {
  return {
    id: 'g',
    name: 'Together',
    on: true,
    where: { masks: [], hold: 100 },
    mix: { mode: 'normal', amount: 100, linear: false },
    ...change,
  }
}

const source = (effects: Effect[], groups: Group[] = [], more: Partial<PictureSource> = {}): PictureSource => ({
  photo,
  effects,
  groups,
  ...more,
})

/** Red, green, blue of every pixel at full size, not rounded. */
function tones(from: PictureSource, exaggerated?: string): Triple[] {
  const grid = gridAt(size, 1)
  const value = evaluator.evaluate(sceneGraph(from, { kind: 'result', exaggerated }), gridBounds(grid), grid)
  const [r, g, b] = [0, 1, 2].map((c) => new Float32Array(kernels.memory.buffer, plane(value, c), grid.width * grid.height).slice())
  return Array.from(r!, (red, i) => [red, g![i]!, b![i]!])
}

function expectNear(found: readonly Triple[], expected: readonly Triple[], limit: number): void {
  let most = 0
  found.forEach((rgb, i) => rgb.forEach((value, c) => (most = Math.max(most, Math.abs(value - expected[i]![c]!)))))
  expect(most).toBeLessThan(limit)
}

const screen = { mode: 'screen', amount: 80, linear: false } as const

describe('a group that passes through', () => {
  it('is what its effects are without it', () => {
    const effects = [rain('a', { mix: screen }), rain('b', { mix: { mode: 'soft-light', amount: 60, linear: false } })]
    expect(sceneGraph(source(effects, [group()])).key).toBe(sceneGraph(source(effects.map((one) => ({ ...one, group: null })))).key)
  })

  it('fades between without and with its effects, by its amount and mask', () => {
    const effects = [rain('a', { mix: screen }), rain('b', { mix: screen })]
    const mask = maskOf(size, 'line', { x: 100, y: 0, toX: 380, toY: 0 })
    const [without, inside] = [tones(source([])), tones(source(effects, [group()]))]
    const found = tones(
      source(effects, [group({ where: { masks: [mask], hold: 100 }, mix: { mode: 'normal', amount: 50, linear: false } })]),
    )
    const openness = (x: number) => {
      const t = Math.min(1, Math.max(0, (x + 0.5 - 100) / 280))
      return 0.5 * (1 - t * t * (3 - 2 * t))
    }
    const expected = without.map((rgb, i) => rgb.map((v, c) => v + openness(i % size.width) * (inside[i]![c]! - v)) as unknown as Triple)
    expectNear(found, expected, 1e-4)
  })

  it('that is off or has no amount adds nothing, also when members stand apart', () => {
    const effects = [rain('a'), rain('lone', { group: null }), rain('b')]
    const alone = sceneGraph(source([effects[1]!])).key
    expect(sceneGraph(source(effects, [group({ on: false })])).key).toBe(alone)
    expect(sceneGraph(source(effects, [group({ mix: { mode: 'normal', amount: 0, linear: false } })])).key).toBe(alone)
  })

  it('a group that is gone leaves its effects as they are', () => {
    expect(sceneGraph(source([rain('a')], [])).key).toBe(sceneGraph(source([rain('a', { group: null })])).key)
  })
})

describe('a group with a mode of its own', () => {
  /** Alpha of an effect at each pixel: its pattern, seen white on black. */
  const alphaOf = (effect: Effect): number[] => {
    const grid = gridAt(size, 1)
    const value = evaluator.evaluate(
      sceneGraph(source([effect]), { kind: 'step', effectId: effect.id, step: 'shape' }),
      gridBounds(grid),
      grid,
    )
    return Array.from(new Float32Array(kernels.memory.buffer, plane(value, 0), grid.width * grid.height))
  }

  // W3C Compositing and Blending Level 1, sections 5.1, 5.8 and 10 (from memory): an isolated group begins transparent.
  const modes: [MixMode, MixMode][] = [
    ['multiply', 'screen'],
    ['screen', 'multiply'],
    ['hard-light', 'difference'],
    ['plus-lighter', 'color'],
  ]
  it.each(modes)('%s over what is beneath, %s within, is isolated', (outer, inner) => {
    const far = rain('far', {
      colour: { tint: '#4080c0', light: null, kelvin: null, lit: 0, ramp: null, balance: null },
      mix: { mode: 'normal', amount: 90, linear: false },
    })
    const near = rain('near', {
      colour: { tint: '#f0c060', light: null, kelvin: null, lit: 0, ramp: null, balance: null },
      mix: { mode: inner, amount: 70, linear: false },
    })
    ;(near.controls as { pattern: { seed: number } }).pattern.seed = 77
    const found = tones(source([far, near], [group({ mix: { mode: outer, amount: 60, linear: false } })]))
    const [photoTones, a1, a2] = [tones(source([])), alphaOf(far), alphaOf(near)]
    const [c1, c2] = [[64 / 255, 128 / 255, 192 / 255] as const, [240 / 255, 192 / 255, 96 / 255] as const]
    const expected = photoTones.map((base, i) => {
      const [ab, as] = [0.9 * a1[i]!, 0.7 * a2[i]!]
      const alpha = as + ab - as * ab
      const blended = blendOracle(inner, c1, c2)
      const colour = [0, 1, 2].map((c) => {
        const laid = (1 - ab) * c2[c]! + ab * blended[c]!
        return alpha > 0 ? ((1 - as) * ab * c1[c]! + as * laid) / alpha : 0
      }) as unknown as Triple
      return mixOracle(outer, base, colour, 0.6 * alpha)
    })
    expectNear(found, expected, 1.5 / 255)
  })

  it('haze that is taken out acts inside a group that passes through, and is nothing in an isolated one', () => {
    const clear = { ...newEffect(size, { kind: 'haze', look: 'clearer-air', id: 'clear' }), group: 'g' }
    const keyOf = (effects: Effect[], mode: MixMode) =>
      sceneGraph(source(effects, [group({ mix: { mode, amount: 60, linear: false } })])).key
    expect(keyOf([rain('far'), clear], 'screen')).toBe(keyOf([rain('far')], 'screen'))
    expect(keyOf([rain('far'), clear], 'normal')).not.toBe(keyOf([rain('far')], 'normal'))
  })

  it('keeps what soft focus does after its glow: the shadows go down, detail comes back', () => {
    const soft = (darkening: number, detail: number): Effect => {
      const made = newEffect(size, { kind: 'softFocus', look: 'veil', id: 'soft' })
      Object.assign(made.controls.shape, { darkening, detail })
      return { ...made, where: { masks: [], hold: 100 }, mix: { mode: 'normal', amount: 100, linear: false }, group: 'g' } as Effect
    }
    const mean = (from: Triple[]) => from.reduce((sum, [, green]) => sum + green, 0) / from.length
    const roughness = (from: Triple[]) => from.slice(1).reduce((sum, [, green], i) => sum + Math.abs(green - from[i]![1]), 0)
    const own = group({ mix: { mode: 'multiply', amount: 100, linear: false } })
    const isolated = (darkening: number, detail: number) => tones(source([soft(darkening, detail)], [own]))
    expect(mean(isolated(80, 0))).toBeLessThan(mean(isolated(0, 0)))
    expect(roughness(isolated(0, 100))).toBeGreaterThan(1.05 * roughness(isolated(0, 0)))
  })

  it.each(['normal', 'screen', 'multiply'] as const)('%s: a preview is the reduced export, and any tiles give identical bytes', (mode) => {
    const mask = maskOf(size, 'ellipse', {})
    const groups = [group({ where: { masks: [mask], hold: 90 }, mix: { mode, amount: 80, linear: false } })]
    const soft = (id: string, tint: string) => {
      const made = rain(id, { colour: { tint, light: null, kelvin: null, lit: 0, ramp: null, balance: null } })
      ;(made.controls as { shape: { blur: number } }).shape.blur = 3
      return made
    }
    const node = sceneGraph(source([soft('a', '#c8d8e8'), soft('b', '#8899aa')], groups))
    const full = renderAll(evaluator, node, size)
    const found = compareColours(reduceInLinearLight(full, 4), renderAll(evaluator, node, size, 0.25))
    expect(found.mean).toBeLessThan(1)
    expect(found.percentile99).toBeLessThan(4)
    const tiled = renderFresh(kernels, [photo], node, size, 1, 97)
    expect(Buffer.compare(Buffer.from(full.pixels), Buffer.from(tiled.pixels))).toBe(0)
  })

  it.each(mixModes)('%s can be taken', (mode) => {
    const node = sceneGraph(source([rain('a')], [group({ mix: { mode, amount: 100, linear: true } })]))
    expect(renderAll(evaluator, node, size, 0.25).pixels.length).toBe(120 * 80 * 4)
  })
})

describe('seeing', () => {
  it('exaggerated, an effect makes three times its difference', () => {
    const effects = [rain('a', { group: null, mix: { mode: 'screen', amount: 20, linear: false } })]
    const [before, once, thrice] = [tones(source([])), tones(source(effects)), tones(source(effects), 'a')]
    const expected = before.map((rgb, i) => rgb.map((v, c) => v + EXAGGERATION * (once[i]![c]! - v)) as unknown as Triple)
    expectNear(thrice, expected, 1e-4)
  })

  it('a mask on a pinned state does not follow its own effect', () => {
    const pinned = [{ id: 'pin', name: 'Before', effects: [rain('beneath', { group: null })], groups: [], shared: [] }]
    const mask = maskOf(size, 'luminosity', { tonesFrom: 'pinned', pinned: 'pin' })
    const look = { kind: 'step', effectId: 'own', step: 'where' } as const
    const key = (amount: number, tint: string) => {
      const own = rain('own', {
        group: null,
        colour: { tint, light: null, kelvin: null, lit: 0, ramp: null, balance: null },
        mix: { mode: 'screen', amount, linear: false },
        where: { masks: [mask], hold: 70 },
      })
      return sceneGraph(source([rain('other', { group: null }), own], [], { pinned }), look).key
    }
    expect(key(80, '#ffffff')).toBe(key(15, '#aa8844'))
  })

  it('a tint can be that of a light, and stays its own when there is none', () => {
    const light = { id: 'lamp', name: 'Lamp', x: 0, y: 0, colour: '#ffaa44', strength: 100, radius: 5 }
    const own = rain('own', { group: null, colour: { tint: '#ffffff', light: 'lamp', kelvin: null, lit: 0, ramp: null, balance: null } })
    const plain = (tint: string) =>
      sceneGraph(source([{ ...own, colour: { tint, light: null, kelvin: null, lit: 0, ramp: null, balance: null } }])).key
    expect(sceneGraph(source([own], [], { marks: { ...noMarks, lights: [light] } })).key).toBe(plain('#ffaa44'))
    expect(sceneGraph(source([own])).key).toBe(plain('#ffffff'))
  })
})
