import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { everyNth, everything, sampled } from '../../test-support/sampled'
import { evaluatorFor, photoFrom, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import { noMarks, type SceneMarks } from '../model/marks'
import type { PhotoData } from '../photo/photoData'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'
import { effectDefinitions, type Effect, type EffectKind } from './registry'

const size = { width: 1200, height: 800 }

let kernels: Kernels
let photo: PhotoData
let evaluator: Evaluator
let bare: Buffer
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
  evaluator = evaluatorFor(kernels, photo)
  bare = Buffer.from(renderAll(evaluator, sceneGraph({ photo, effects: [] }), size).pixels)
})

const light = (x: number, y: number): SceneMarks['lights'][number] => ({
  id: 'sun',
  name: 'Sun',
  x,
  y,
  radius: 30,
  colour: '#ffd9a0',
  strength: 90,
})
const level = (y: number) => ({ y, turn: 0 })
const inside: SceneMarks = { ...noMarks, lights: [light(700, 300)], horizon: level(420), waterline: level(520), focal: { x: 600, y: 450 } }
const outside: SceneMarks = { ...inside, lights: [light(1700, -500)] }

const looks = effectDefinitions
  .filter(({ family, madeFromEffect }) => !madeFromEffect && family !== 'weather')
  .flatMap(({ kind, startingLooks }) => sampled(startingLooks).map(({ id }) => [kind, id] as const))

/** As wide as on a photo of 3.8 megapixels, so that this smaller one shows a part of such a photo; places as on this one. */
function effectOf(kind: EffectKind, look: string): Effect {
  const large = newEffect({ width: 2400, height: 1600 }, { kind, look, id: look })
  const small = newEffect(size, { kind, look, id: look })
  const placed = small.controls.pattern as Record<string, unknown>
  for (const key of ['x', 'y', 'toX', 'toY', 'paths', 'places', 'height']) {
    if (key in placed) (large.controls.pattern as Record<string, unknown>)[key] = placed[key]
  }
  // Without a picture nothing is laid over: here it is the photo itself, small and turned.
  if (large.kind === 'overlay')
    Object.assign(large.controls.pattern, { picture: { ...size, id: photo.id, fileName: 'photo.png' }, width: 431, turn: 21 })
  return large
}

describe('each starting look of light keeps the rendering contract', () => {
  it.each(everyNth(looks, 2))('%s, %s: a preview is the reduced export, and any tiles give identical bytes', (kind, look) => {
    const node = sceneGraph({ photo, effects: [effectOf(kind, look)], marks: inside })
    const full = renderAll(evaluator, node, size)
    expect(Buffer.compare(Buffer.from(full.pixels), bare), 'it is seen').not.toBe(0)
    const graphWith = (marks: SceneMarks): GraphNode => sceneGraph({ photo, effects: [effectOf(kind, look)], marks })
    // What follows no light is the same wherever that is.
    const follows = graphWith(outside).key !== node.key
    for (const [marks, whole] of follows
      ? ([
          [inside, full],
          [outside, undefined],
        ] as const)
      : ([[inside, full]] as const)) {
      const graph = graphWith(marks)
      const large = whole ?? renderAll(evaluator, graph, size)
      for (const factor of whole || everything ? [2, 4, 8] : [4]) {
        const found = compareColours(reduceInLinearLight(large, factor), renderAll(evaluator, graph, size, 1 / factor))
        expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1)
        expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4)
      }
    }
    const region = { x: 405, y: 197, width: 420, height: 350 }
    const tilings = [
      [inside, 1],
      [follows ? outside : inside, 0.37],
      [inside, 0.37],
      [outside, 1],
      [outside, 0.5],
    ] as const
    for (const [marks, scale] of everything ? tilings : tilings.slice(0, 2)) {
      const graph = graphWith(marks)
      const whole = renderAll(evaluator, graph, size, scale, 4096, region)
      const tiled = renderFresh(kernels, [photo], graph, size, scale, 101, region)
      expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `scale ${scale}`).toBe(0)
    }
  })
})
