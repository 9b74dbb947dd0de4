import { definitionOf, type Effect, type PictureSource } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { changeEffect } from '../../scene/sceneStore'

const NONE = 'none'

/** Which effect a reflection mirrors. */
export function MirroredChoice({ source, effect }: { readonly source: PictureSource; readonly effect: Effect }) {
  const others = source.effects.filter(({ kind }) => !definitionOf(kind).mirrors)
  const of = definitionOf(effect.kind).mirrors?.(effect.controls)
  return (
    <Choice
      label="Mirrors"
      value={others.find(({ id }) => id === of)?.id ?? NONE}
      options={[[NONE, 'Not chosen'], ...others.map(({ id, name }) => [id, name] as const)]}
      onChange={(next) =>
        changeEffect(effect.id, 'What is mirrored', (one) => void Object.assign(one.controls.pattern, { of: next === NONE ? null : next }))
      }
    />
  )
}
