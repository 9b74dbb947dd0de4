import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { randomNumbers } from '../../test-support/pictures'
import { randomEffect } from '../../test-support/randomValue'
import { newEffect } from '../effects/newEffect'
import { effectDefinitions, type Effect } from '../effects/registry'
import { newMask } from '../masks/newMask'
import { noMarks } from '../model/marks'
import { Planner } from '../graph/plan'
import { operations, operationNames } from '../operations/registry'
import type { Size } from '../planes/grid'
import { sceneGraph } from './sceneGraph'
import { costPerPixel } from '../operations/costs'
import { checkCost, costOf, TooCostly } from './cost'

const photo = (width: number, height: number): Size & { id: string } => ({ id: 'p', width, height })
const sizes = [photo(3000, 2000), photo(6000, 4000), photo(9500, 6300)]
const marks = { ...noMarks, horizon: { y: 900, turn: 0 } }

let planner: Planner
beforeAll(async () => {
  planner = new Planner(operations, await loadKernels())
})

const graphOf = (size: Size & { id: string }, effects: readonly Effect[]) => sceneGraph({ photo: size, effects, marks })

function custom(size: Size, steps: readonly object[]): Effect {
  const effect = newEffect(size, { kind: 'customField', id: 'c' })
  Object.assign(effect.controls.shape, { steps })
  return effect
}

const many = (count: number, step: object): object[] => Array.from({ length: count }, () => step)

describe('the cost of a picture', () => {
  it('is stated by every operation', () => {
    const grid = { width: 100, height: 100, pitchX: 1, pitchY: 1 }
    const rect = { x: 0, y: 0, width: 100, height: 100 }
    const unstated = operationNames.filter((operation) => {
      try {
        costPerPixel({ operation, params: {}, inputs: [], key: '' }, rect, grid)
        return false
      } catch (error) {
        return (error as Error).message.includes('states no cost')
      }
    })
    expect(unstated).toEqual([])
  })

  it.each(effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect).map(({ kind }) => kind))(
    'of %s is within reason for each look and anywhere in the usual ranges, at 6, 24 and 60 megapixels',
    (kind) => {
      const random = randomNumbers(31)
      const { startingLooks } = effectDefinitions.find((definition) => definition.kind === kind)!
      for (const size of sizes) {
        for (const { id } of startingLooks) checkCost(graphOf(size, [newEffect(size, { kind, look: id, id: 'l' })]), size, planner)
        for (let i = 0; i < 12; i++)
          checkCost(graphOf(size, [randomEffect(size, kind, random, 'usual ends', i % 2 ? 1 : 0.3)]), size, planner)
      }
    },
  )

  it('of a look of every kind, one over the other, is within reason: what each adds to the first tile is judged by itself', () => {
    const size = photo(6000, 4000)
    const all = effectDefinitions
      .filter(({ madeFromEffect }) => !madeFromEffect)
      .map(({ kind, startingLooks: [look] }, i) => newEffect(size, { kind, look: look!.id, id: `${i}` }))
    expect(all.length).toBeGreaterThan(25)
    const one = costOf(graphOf(size, all.slice(0, 1)), size, planner)
    const stack = costOf(graphOf(size, all), size, planner)
    expect(stack.seconds).toBeGreaterThan(10 * one.seconds)
    checkCost(graphOf(size, all), size, planner)
  })

  it.each([
    ['24 motions of 6000 px', many(24, { kind: 'motion', length: 6000, angle: 37 }), /lower the length of its motion blur/],
    ['24 discs of 400 px', many(24, { kind: 'maximum', radius: 400 }), /lower its radius/],
    ['24 spins of 30°', many(24, { kind: 'spin', arc: 30 }), /lower the strength of its zoom, or the arc of its spin/],
  ])('of %s is beyond reason at 24 megapixels: it is named, with what to lower', (_, steps, words) => {
    const size = photo(6000, 4000)
    const node = graphOf(size, [custom(size, steps)])
    expect(() => checkCost(node, size, planner)).toThrow(TooCostly)
    expect(() => checkCost(node, size, planner)).toThrow(
      /^on this photo it would take about \d+ minutes; |^on this photo about \d+ seconds would pass before any of it is seen; /,
    )
    expect(() => checkCost(node, size, planner)).toThrow(words)
  })

  it('grows with what a tile has to read for a chain of wide operations, and not with what is computed once', () => {
    const size = photo(6000, 4000)
    const [one, four] = [1, 4].map(
      (count) => costOf(graphOf(size, [custom(size, many(count, { kind: 'maximum', radius: 200 }))]), size, planner).seconds,
    )
    expect(four!).toBeGreaterThan(6 * one!)
    const blurs = [1, 4].map(
      (count) => costOf(graphOf(size, [custom(size, many(count, { kind: 'blur', radius: 800 }))]), size, planner).seconds,
    )
    expect(blurs[1]! - blurs[0]!).toBeLessThan(0.5)
  })

  it('of masks that are grown is part of it', () => {
    const size = photo(6000, 4000)
    const grown = (grow: number): Effect => {
      const mask = {
        ...newMask(size, { kind: 'outline', id: 'm', join: 'keep', marks: noMarks }),
        grow,
        paths: [{ hole: false, corners: [0, 1, 2].map((i) => ({ x: 3000 * i, y: 2000 * (i % 2), inX: 0, inY: 0, outX: 0, outY: 0 })) }],
      }
      return { ...newEffect(size, { kind: 'glaze', id: 'g' }), where: { masks: [mask as never], hold: 100 } }
    }
    const [little, much] = [2, 300].map((grow) => costOf(graphOf(size, [grown(grow)]), size, planner).seconds)
    expect(much!).toBeGreaterThan(2 * little!)
  })
})
