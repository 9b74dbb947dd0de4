import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import { everyNth, sampled } from '../../test-support/sampled'
import { ownColoursOf } from '../effects/effectName'
import { newEffect } from '../effects/newEffect'
import { definitionOf, effectDefinitions, type Effect } from '../effects/registry'
import type { Evaluator } from '../graph/evaluator'
import { choiceOf, colourLabelOf, controlOf, schemaAt } from '../model/controls'
import { markedPoint, noMarks, type SceneMarks } from '../model/marks'
import { readPath, readWord, writePath } from '../model/paths'
import { spanOf } from '../model/span'
import { coloursThatCount } from './coloursThatCount'
import type { PictureSource } from './pictureSource'
import { sceneGraph } from './sceneGraph'

const size = { width: 600, height: 400 }
const light = { id: 'sun', name: 'Sun', x: 350, y: 150, radius: 15, colour: '#ffd9a0', strength: 90 }
const marks: SceneMarks = {
  ...noMarks,
  lights: [light],
  horizon: { y: 210, turn: 0 },
  waterline: { y: 260, turn: 0 },
  focal: { x: 300, y: 225 },
}
/** What moves is at rest at the beginning of its loop. */
const phases = [0, 0.3]

let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'photo', size.width, size.height, samplePixels(size.width, size.height)))
})

const rain = newEffect(size, { kind: 'rain', id: 'rain' })

/** A look as it begins, with what it cannot do without. */
function begun(kind: Effect['kind'], look: string): Effect {
  const effect = newEffect(size, { kind, look, id: 'e', marks })
  if (effect.kind === 'overlay')
    Object.assign(effect.controls.pattern, { picture: { ...size, id: 'photo', fileName: 'p.png' }, width: 300, x: 260, y: 170 })
  if (effect.kind === 'reflection') effect.controls.pattern.of = rain.id
  // Its amount is one of the things that can be changed.
  effect.mix.amount = 80
  return effect
}

function sourceOf(effect: Effect, phase = 0): PictureSource {
  return { photo: { id: 'photo', ...size }, effects: effect.kind === 'reflection' ? [rain, effect] : [effect], marks, phase }
}

const draw = (effect: Effect, phase: number): Buffer => Buffer.from(renderAll(evaluator, sceneGraph(sourceOf(effect, phase)), size).pixels)

type Change = (effect: Effect) => void

/** Other values of a control: both ends of its slider and the middle, the other choices, another colour. */
function othersOf({ kind, controls }: Effect, path: string): Change[] {
  const schema = schemaAt(definitionOf(kind).controls, path)
  const set = (value: number | string): Change => {
    return (effect) => writePath(effect.controls, path, value)
  }
  const span = spanOf(schema, size)
  if (span) {
    const [least, most] = span
    const whole = (controlOf(schema)?.step ?? 1) >= 1
    const values = [least, most, (least + most) / 2].map((value) => (whole ? Math.round(value) : value))
    return values.filter((value) => value !== readPath(controls, path)).map(set)
  }
  const choice = choiceOf(schema)
  if (choice) return choice.options.flatMap(([value]) => (value === readWord(controls, path) ? [] : [set(value)]))
  return colourLabelOf(schema) ? [set('#3060c0')] : []
}

/** The controls of pattern and shape as the panel shows them. */
function shownControls({ kind, controls }: Effect): string[] {
  const { applies } = definitionOf(kind)
  const followed = markedPoint(marks, readWord(controls, 'pattern.follows') || null) !== undefined
  return (['pattern', 'shape'] as const)
    .flatMap((step) => Object.keys(controls[step]).map((key) => `${step}.${key}`))
    .filter((path) => (applies?.(path, controls as never) ?? true) && !(followed && /^pattern\.[xy]$/.test(path)))
}

const looks = effectDefinitions.flatMap(({ kind, startingLooks }) => sampled(startingLooks).map(({ id }) => [kind, id] as const))

describe('a control that is shown changes the picture', () => {
  it.each(everyNth(looks, 2))('%s, %s', (kind, look) => {
    const effect = begun(kind, look)
    const before = phases.map((phase) => draw(effect, phase))
    const changes = (others: readonly Change[]): boolean =>
      others.some((change) => {
        const other = structuredClone(effect)
        change(other)
        return phases.some((phase, i) => !draw(other, phase).equals(before[i]!))
      })
    const idle = shownControls(effect).filter((path) => {
      const others = othersOf(effect, path)
      return others.length > 0 && !changes(others)
    })
    expect(idle).toEqual([])
    const shifts = { red: 60, green: 0, blue: -60 }
    const plain: Change = ({ colour }) => void Object.assign(colour, { light: null, kelvin: null, ramp: null, balance: null })
    plain(effect)
    phases.forEach((phase, i) => (before[i] = draw(effect, phase)))
    const ramp = [
      { at: 0, colour: '#ff0000' },
      { at: 100, colour: '#0000ff' },
    ]
    // What takes no colour says where its own come from.
    const { tint } = coloursThatCount(sourceOf(effect), effect)
    if (!tint) expect(ownColoursOf(effect)).toBeTruthy()
    // Neither more nor fewer settings of the colour are offered than count.
    expect(coloursThatCount(sourceOf(effect), effect)).toEqual({
      tint: changes([({ colour }) => void (colour.tint = '#3060c0')]),
      ramp: changes([({ colour }) => void (colour.ramp = ramp)]),
      balance: changes([
        ({ colour }) => void (colour.balance = { shadows: shifts, midtones: shifts, highlights: shifts, keepLuminosity: false }),
      ]),
    })
  })
})
