import { newEffect } from '../src/effects/newEffect'
import type { Effect, EffectKind } from '../src/effects/registry'
import { newMask } from '../src/masks/newMask'
import type { Mask } from '../src/masks/registry'
import { noMarks } from '../src/model/marks'
import type { PinnedState } from '../src/model/stack'
import type { PictureSource } from '../src/render/pictureSource'

// Scenes whose parts read one another.

export const size = { width: 300, height: 200 }
export const photo = { id: 'p', ...size }

export function effectOf(kind: EffectKind, id: string): Effect {
  return newEffect(size, { kind, id })
}

/** A list of masks, each of which reads the pattern of an effect, or the effect itself by its tones. */
export function reading(...ids: readonly string[]): Effect['where'] {
  const masks = ids.map((id): Mask => {
    if (id === 'itself') {
      return { ...newMask(size, { kind: 'luminosity', id, join: 'keep', marks: noMarks }), tonesFrom: 'effect' } as Mask
    }
    return { ...newMask(size, { kind: 'pattern', id, join: 'add', marks: noMarks }), effectId: id } as Mask
  })
  return { masks, hold: 100 }
}

/** A list of one mask that reads a pinned state. */
function readingPinned(pinned: string): Effect['where'] {
  const mask = newMask(size, { kind: 'luminosity', id: 'm', join: 'keep', marks: noMarks })
  return { masks: [{ ...mask, tonesFrom: 'pinned', pinned } as Mask], hold: 100 }
}

/** Effects whose regions each read all the others. */
export function regionsReadingOneAnother(count: number): PictureSource {
  const ids = Array.from({ length: count }, (_, i) => `e${i}`)
  const effects = ids.map((id) => ({ ...effectOf('subjectGlow', id), region: reading(...ids.filter((other) => other !== id)) }))
  return Object.freeze({ photo, effects })
}

/** Pinned states of ten effects, each of which reads the state before. */
export function chainedPinnedStates(count: number): PictureSource {
  const before = (i: number): string => `state ${i - 1}`
  const pinned = Array.from({ length: count }, (_, i): PinnedState => {
    const effects = Array.from({ length: 10 }, (__, k) => ({
      ...effectOf('rain', `r${k}`),
      where: i > 0 ? readingPinned(before(i)) : { masks: [], hold: 100 },
    }))
    return { id: `state ${i}`, name: `S${i}`, effects, groups: [], shared: [] }
  })
  return Object.freeze({ photo, effects: [{ ...effectOf('rain', 'top'), where: readingPinned(before(count)) }], pinned })
}
