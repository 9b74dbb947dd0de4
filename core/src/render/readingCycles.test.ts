import { describe, expect, it } from 'vitest'
import { newEffect } from '../effects/newEffect'
import type { Effect, EffectKind } from '../effects/registry'
import { newMask } from '../masks/newMask'
import { noMarks } from '../model/marks'
import { sceneGraph } from './sceneGraph'

const size = { width: 300, height: 200 }
const photo = { id: 'p', ...size }

function effectOf(kind: EffectKind, id: string): Effect {
  return newEffect(size, { kind, id })
}

/** A custom field that is made from the pattern of another effect. */
function customOf(id: string, of: string): Effect {
  const made = effectOf('customField', id)
  Object.assign(made.controls.pattern, { source: 'effect', of })
  return made
}

/** A list of one mask that reads the pattern of an effect, or the effect itself by its tones. */
function reading(effectId: string | 'itself'): Effect['where'] {
  const kind = effectId === 'itself' ? 'luminosity' : 'pattern'
  const mask = newMask(size, { kind, id: `reads ${effectId}`, join: 'keep', marks: noMarks })
  return { masks: [{ ...mask, ...(effectId === 'itself' ? { tonesFrom: 'effect' } : { effectId }) } as typeof mask], hold: 100 }
}

// A region and what lies beneath may lead back to the effect that reads them. Then it is taken as nothing; no chain goes on for ever.
describe('effects that read themselves', () => {
  it.each([
    ['its own pattern in its region', [{ ...effectOf('subjectGlow', 'a'), region: reading('a') }]],
    ['its own tones in its region', [{ ...effectOf('subjectGlow', 'a'), region: reading('itself') }]],
    ['its own tones in the pool that it lights', [{ ...effectOf('lightPool', 'a'), region: reading('itself') }]],
    [
      'each other in their regions',
      [
        { ...effectOf('subjectGlow', 'a'), region: reading('b') },
        { ...effectOf('lightPool', 'b'), region: reading('a') },
      ],
    ],
    ['each other as custom fields', [customOf('a', 'b'), customOf('b', 'a')]],
    [
      'what lies beneath, where a mask reads the one above',
      [
        { ...effectOf('rain', 'a'), where: reading('b') },
        {
          ...effectOf('softFocus', 'b'),
          controls: {
            ...effectOf('softFocus', 'b').controls,
            shape: { ...effectOf('softFocus', 'b').controls.shape, protectHighlights: 50 },
          },
        },
      ],
    ],
  ] as [string, Effect[]][])('by %s have a graph', (_, effects) => {
    const source = { photo, effects }
    expect(sceneGraph(source).key).not.toBe('')
    for (const { id } of effects) {
      for (const step of ['pattern', 'shape', 'colour', 'where', 'mix'] as const)
        expect(sceneGraph(source, { kind: 'step', effectId: id, step }).key).not.toBe('')
      expect(sceneGraph(source, { kind: 'alone', effectId: id }).key).not.toBe('')
    }
  })
})
