import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { maskOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import type { Evaluator } from '../graph/evaluator'
import type { Mask } from '../masks/registry'
import type { SharedMask } from '../model/stack'
import { maskContext, sceneGraph } from './sceneGraph'
import { maskProblem } from '../masks/whereNode'
import type { PictureSource } from './pictureSource'

const size = { width: 240, height: 160 }
const photo = { id: 'sample', ...size }
let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height)))
})

const ellipse = maskOf(size, 'ellipse', { x: 90, y: 70, radiusX: 60, radiusY: 40, softness: 60, feather: 4, id: 'e' })
const tones = maskOf(size, 'luminosity', { tonesFrom: 'photo', id: 't', join: 'subtract', strength: 70 })
const shared = (id: string, ...masks: Mask[]): SharedMask => ({ id, name: id, where: { masks, hold: 100 } })
const reads = (of: string | null, part: Partial<Mask> = {}): Mask => ({ ...maskOf(size, 'shared', { of }), ...part }) as Mask

/** Rain beneath an adjustment with such masks. */
function source(masks: readonly Mask[], all: readonly SharedMask[] = []): PictureSource {
  const adjust: Effect = newEffect(size, { kind: 'adjust', look: 'warm-evening', id: 'a' })
  adjust.where = { masks: [...masks], hold: 90 }
  return { photo, effects: [newEffect(size, { kind: 'rain', id: 'r' }), adjust], shared: all }
}
const bytes = (one: PictureSource) => renderAll(evaluator, sceneGraph(one), size).pixels

describe('a shared mask', () => {
  it.each([
    ['alone', [ellipse], [reads('s')]],
    ['of several masks', [ellipse, tones], [reads('s')]],
    [
      'that joins as another, by half',
      [ellipse],
      [tones, reads('s', { join: 'keep', strength: 50 })],
      [tones, { ...ellipse, strength: 50 }],
    ],
    ['that is turned over', [ellipse], [reads('s', { invert: true })], [{ ...ellipse, invert: true }]],
  ] as const)('%s gives the bytes of the masks it is made of', (_, within, list, own: readonly Mask[] = within) => {
    expect(bytes(source(list as readonly Mask[], [shared('s', ...within)]))).toEqual(bytes(source(own)))
  })

  it('is made once, whoever reads it: the same nodes in two effects over different things', () => {
    const [rain, adjust] = source([reads('s')], []).effects as [Effect, Effect]
    const scene = {
      photo,
      effects: [{ ...rain, where: { masks: [reads('s')], hold: 100 } }, adjust],
      shared: [shared('s', ellipse, tones)],
    }
    const maskNode = (owner: string) => maskContext(scene, owner).shared('s')!
    expect(maskNode('r').key).toBe(maskNode('a').key)
  })

  it('is left out where it is gone, empty, or reads others, and says so; the others stay as they are', () => {
    const plain = bytes(source([ellipse]))
    for (const all of [
      [],
      [shared('s')],
      [shared('s', reads('s'))],
      [shared('s', reads('b')), shared('b', reads('s'))],
      [shared('s', maskOf(size, 'pattern', { effectId: 'r' }))],
    ]) {
      const scene = source([ellipse, reads('s')], all)
      expect(bytes(scene)).toEqual(plain)
      expect(maskProblem(reads('s'), maskContext(scene, 'a'))).toContain('left out')
    }
    // Of one that has something of its own that counts.
    const pair = [shared('s', ellipse, reads('b')), shared('b', tones, reads('s'))]
    expect(bytes(source([reads('s')], pair))).toEqual(plain)
  })

  it('costs no more where a forged document lets all read all', () => {
    const ids = Array.from({ length: 60 }, (_, i) => `s${i}`)
    const all = ids.map((id) => shared(id, ellipse, ...ids.slice(0, 30).map((of) => reads(of))))
    expect(bytes(source([reads('s0')], all))).toEqual(bytes(source([ellipse])))
  })

  it('reads the photo, also where a mask in it says that it reads what lies beneath', () => {
    const beneath = { ...tones, join: 'keep', strength: 100, tonesFrom: 'beneath' } as Mask
    const fromPhoto = { ...beneath, tonesFrom: 'photo' } as Mask
    expect(bytes(source([reads('s')], [shared('s', beneath)]))).toEqual(bytes(source([fromPhoto])))
  })
})
