import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll } from '../../test-support/pictures'
import type { Kernels } from '../graph/operation'
import { noMarks } from '../model/marks'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'

const size = { width: 300, height: 240 }
let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

describe('what shines over the water', () => {
  const marks = {
    ...noMarks,
    waterline: { y: 120, turn: 0 },
    lights: [{ id: 'sun', name: 'Sun', x: 200, y: 60, radius: 10, colour: '#ffd9a0', strength: 100 }],
  }

  it.each([
    ['sunburst', 'morning-star'],
    ['rays', 'short-burst'],
    ['lightBloom', 'night-lights'],
    ['subjectGlow', 'lit-from-within'],
  ] as const)('%s, %s is mirrored below the waterline, and follows its light', (kind, look) => {
    // A dim picture with one bright spot where the sun is.
    const pixels = Array.from({ length: size.width * size.height }, (_, i) => {
      const near = Math.hypot((i % size.width) - 200, Math.floor(i / size.width) - 60) < 7
      return near ? [255, 250, 235, 255] : [60, 64, 70, 255]
    }).flat()
    const photo = photoFrom(kernels, 'p', size.width, size.height, pixels)
    const one = newEffect(size, { kind, look, id: 'one' })
    one.where = { masks: [], hold: 100 }
    if (one.region) {
      const [ellipse] = one.region.masks
      if (ellipse?.kind === 'ellipse') Object.assign(ellipse, { follows: 'sun' })
    }
    const mirrored = newEffect(size, { kind: 'reflection', id: 'two' })
    Object.assign(mirrored.controls.pattern, { of: 'one', stretch: 1 })
    Object.assign(mirrored.controls.shape, { ripple: 0, fade: 0, blur: 0 })
    mirrored.where = { masks: [], hold: 100 }
    const draw = (effects: (typeof one)[]) => renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects, marks }), size).pixels
    const [plain, lit] = [draw([one]), draw([one, mirrored])]
    const gain = (x: number, y: number) => lit[4 * (y * size.width + x)]! - plain[4 * (y * size.width + x)]!
    expect(gain(200, 180)).toBeGreaterThan(10)
    expect(gain(200, 60)).toBe(0)
    expect(gain(60, 180)).toBeLessThan(gain(200, 180) / 2)
  })
})
