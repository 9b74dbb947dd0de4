import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import type { Evaluator } from '../graph/evaluator'
import type { BrushStroke } from '../masks/brush/definition'
import { newMask } from '../masks/newMask'
import type { Mask } from '../masks/registry'
import { noMarks } from '../model/marks'
import { operationNames, operations } from '../operations/registry'
import { gridAt } from '../planes/grid'
import type { PictureSource } from './pictureSource'
import { sceneGraph } from './sceneGraph'
import { readsAnywhere, readsAround, spreadOf } from './spread'

const size = { width: 480, height: 320 }
const grid = gridAt(size, 1)
let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height)))
})

const stroke: BrushStroke = {
  ...{ size: 30, hardness: 100, flow: 100, level: 100, pressure: 'nothing', erase: false },
  ...{ points: [240, 160, 1, 260, 160, 1], guides: [], tolerance: 10 },
}

/** An adjustment that is painted, with the numbers of its mask, and what lies over it. */
function painted(strokes: readonly BrushStroke[], numbers: Partial<Mask>, over: readonly Effect[]): PictureSource {
  const adjust = newEffect(size, { kind: 'adjust', look: 'neutral', id: 'a' })
  const mask = newMask(size, { kind: 'brush', id: 'm', join: 'keep', marks: noMarks })
  adjust.where.masks = [Object.assign(mask, { strokes: [...strokes] }, numbers) as Mask]
  Object.assign(adjust.controls.pattern, { exposure: 1 })
  return { photo: { id: 'sample', ...size }, effects: [adjust, ...over] }
}

const above = (kind: Effect['kind']) => newEffect(size, { kind, id: kind })

describe('how far a stroke is seen', () => {
  it('is known of every operation: those that read around and those that may read anywhere are named, the others read what lies at a pixel', () => {
    const wide = operationNames.filter((name) => {
      const { need, block, pitch } = operations.named(name)
      return need ?? block ?? pitch
    })
    expect(wide.toSorted()).toEqual([...readsAnywhere, ...Object.keys(readsAround)].toSorted())
  })

  it.each([
    ['of a plain mask: under the pen only', {}, [], 0],
    ['of a feathered one', { feather: 6 }, [], 15],
    ['of one that is grown', { grow: 9 }, [], 9],
    ['under curves and a glaze', {}, [above('curves'), above('glaze')], 0],
  ] as const)('%s: nothing beyond it changes, and something within it does', (_, numbers, over, least) => {
    const [before, after] = [[], [stroke]].map((strokes) => sceneGraph(painted(strokes, numbers, over)))
    const spread = spreadOf(
      after!,
      ({ operation, params }) => operation === 'brushMask' && (params['strokes'] as unknown[]).includes(stroke),
      grid,
    )!
    expect(spread).toBeGreaterThanOrEqual(least)
    const [old, changed] = [renderAll(evaluator, before!, size), renderAll(evaluator, after!, size)].map(({ pixels }) => pixels)
    let farthest = 0
    changed!.forEach((value, i) => {
      if (value === old![i]) return
      const [x, y] = [(i >> 2) % size.width, Math.floor((i >> 2) / size.width)]
      // From the line of the stroke.
      farthest = Math.max(farthest, Math.hypot(x - Math.min(260, Math.max(240, x)), y - 160))
    })
    expect(farthest).toBeGreaterThan(stroke.size / 2 - 2)
    // The edge of a stroke is smooth over a pixel.
    expect(farthest).toBeLessThan(stroke.size / 2 + spread + 1.5)
  })

  it('under what reads anywhere, it may be anywhere', () => {
    const node = sceneGraph(painted([stroke], {}, [above('lensDrops')]))
    expect(spreadOf(node, ({ operation }) => operation === 'brushMask', grid)).toBeUndefined()
  })
})
