import { definitionOf, nameOfEffect, newEffect, noMarks, waterlineOf, type Effect, type PictureSource } from '@welkinar/core'
import { showNotice } from '../../common/notices'
import { select, useScene } from '../../scene/sceneStore'

/** Lays what an effect draws into the water too: a reflection right in front of it, which follows it from then on. */
export function reflect(effect: Effect, source: Pick<PictureSource, 'photo' | 'marks'>): void {
  if (definitionOf(effect.kind).madeFromEffect) return showNotice('This is a reflection already.')
  const made = newEffect(source.photo, { kind: 'reflection', place: effect.place, id: crypto.randomUUID() })
  Object.assign(made.controls.pattern, { of: effect.id })
  made.name = `${nameOfEffect(effect)} in the water`.slice(0, 80)
  made.group = effect.group
  const done = useScene.getState().change('Reflect in the water', ({ effects }) => {
    effects.splice(effects.findIndex(({ id }) => id === effect.id) + 1, 0, made)
  })
  if (!done) return
  select(made.id)
  if (!waterlineOf(source.marks ?? noMarks)) showNotice('Draw the waterline in Marks: the reflection follows it.')
}
