import { interpolate, formatHex } from 'culori'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll } from '../../../test-support/pictures'
import { rgbFromHex } from '../../colour/hex'
import type { Kernels } from '../../graph/operation'
import { sceneGraph } from '../../render/sceneGraph'
import { newEffect } from '../newEffect'
import type { Effect } from '../registry'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const size = { width: 200, height: 120 }
const grey = 90

type Glaze = Extract<Effect, { kind: 'glaze' }>

/** Red, green and blue of the picture with a glaze on grey, at a place. */
function laid(change: (glaze: Glaze) => void, tone: (x: number) => number = () => grey): (x: number, y: number) => number[] {
  const pixels = Array.from({ length: size.width * size.height }, (_, i) => [...Array<number>(3).fill(tone(i % size.width)), 255]).flat()
  const photo = photoFrom(kernels, 'grey', size.width, size.height, pixels)
  const effect = newEffect(size, { kind: 'glaze', id: 'g' }) as Glaze
  Object.assign(effect.mix, { mode: 'normal', amount: 100, linear: false })
  effect.where = { masks: [], hold: 100 }
  change(effect)
  const { pixels: found } = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [effect] }), size)
  return (x, y) => [...found.subarray(4 * (y * size.width + x), 4 * (y * size.width + x) + 3)]
}

describe('a glaze', () => {
  it('laid evenly is its colour everywhere, by its amount', () => {
    const at = laid(({ colour, mix }) => {
      colour.tint = '#c86432'
      mix.amount = 40
    })
    for (const place of [at(0, 0), at(150, 100)])
      [200, 100, 50].forEach((code, k) => expect(place[k]!).toBeCloseTo(grey + 0.4 * (code - grey), -0.3))
  })

  it('along a slope fades from where it begins to where it ends, smoothly', () => {
    const at = laid(({ controls, colour }) => {
      colour.tint = '#ffffff'
      Object.assign(controls.pattern, { by: 'slope', x: 0, y: 0, toX: 200, toY: 0 })
    })
    for (const x of [20, 100, 170]) {
      const t = (x + 0.5) / 200
      expect(Math.abs(at(x, 60)[0]! - (grey + (1 - t * t * (3 - 2 * t)) * (255 - grey))), `at ${x}`).toBeLessThan(1.5)
    }
  })

  it('by a ramp changes its colour along the slope, and covers all of it', () => {
    const stops = ['#203060', '#e0a040'] as const
    const at = laid(({ controls, colour }) => {
      Object.assign(controls.pattern, { by: 'slope', x: 0, y: 0, toX: 200, toY: 0 })
      controls.shape.changes = 'colour'
      colour.ramp = stops.map((hex, i) => ({ at: 100 * i, colour: hex }))
    })
    const between = interpolate([...stops], 'oklab')
    for (const x of [5, 60, 120, 195]) {
      const t = (x + 0.5) / 200
      const wanted = rgbFromHex(formatHex(between(1 - t * t * (3 - 2 * t))))
      at(x, 40).forEach((code, k) => expect(Math.abs(code - 255 * wanted[k]!), `at ${x}`).toBeLessThan(2.5))
    }
  })

  it('by the tones beneath takes its colours from how bright they are', () => {
    const at = laid(
      ({ controls, colour }) => {
        controls.pattern.by = 'tones'
        controls.shape.changes = 'colour'
        colour.ramp = [
          { at: 0, colour: '#000080' },
          { at: 100, colour: '#ffff00' },
        ]
      },
      (x) => (x < 100 ? 0 : 255),
    )
    expect(at(40, 50)).toEqual([0, 0, 128])
    expect(at(160, 50)).toEqual([255, 255, 0])
  })
})
