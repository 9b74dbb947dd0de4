import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import { noMarks } from '../model/marks'
import type { PhotoData } from '../photo/photoData'
import { sceneGraph } from '../render/sceneGraph'
import { looksOf, NEUTRAL } from './effectDefinition'
import { newEffect } from './newEffect'
import { effectDefinitions } from './registry'

const size = { width: 320, height: 214 }
/** Kinds that correct, or shine where they are put; the others have nothing that would be neutral: a field without lines is none. */
const kinds = effectDefinitions.filter((definition) => looksOf(definition)[0]?.id === NEUTRAL)

let photo: PhotoData
let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  evaluator = evaluatorFor(kernels, photo)
})

describe('a neutral start', () => {
  it('is there for all of the finish, for the glaze, the lamp and the light pool', () => {
    const finish = effectDefinitions.filter(({ family }) => family === 'finish').map(({ kind }) => kind)
    expect(kinds.map(({ kind }) => kind).toSorted()).toEqual([...finish, 'glaze', 'lamp', 'lightPool'].toSorted())
  })

  it.each(kinds.map(({ kind }) => kind))('of %s gives the codes of the photo, at any scale', (kind) => {
    const lights = [{ id: 'sun', name: 'Sun', x: 210, y: 60, radius: 12, colour: '#ffd9a0', strength: 90 }]
    const marks = { ...noMarks, lights, horizon: { y: 110, turn: 0 }, focal: { x: 160, y: 107 } }
    const effects = [newEffect(size, { kind, look: NEUTRAL, id: 'a', marks })]
    for (const scale of [1, 0.5]) {
      const with_ = renderAll(evaluator, sceneGraph({ photo, marks, effects }), size, scale)
      const without = renderAll(evaluator, sceneGraph({ photo, marks, effects: [] }), size, scale)
      expect(Buffer.compare(Buffer.from(with_.pixels), Buffer.from(without.pixels))).toBe(0)
    }
  })
})
