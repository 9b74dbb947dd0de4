import { definitionOf, nameOfEffect } from '@welkinar/core'
import { Choice } from '../../../common/Choice'
import { changeKind } from '../../../scene/sceneStore'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

const NONE = 'none'

/** Which effect a reflection mirrors. */
export function MirroredChoice({ effect }: EffectPanelProps<'reflection'>) {
  const source = useSource()
  const others = source.effects.filter(({ kind }) => !definitionOf(kind).madeFromEffect)
  const { of } = effect.controls.pattern
  return (
    <Choice
      label="Mirrors"
      value={others.find(({ id }) => id === of)?.id ?? NONE}
      options={[[NONE, 'Not chosen'], ...others.map((other) => [other.id, nameOfEffect(other)] as const)]}
      onChange={(next) =>
        changeKind('reflection', effect.id, 'What is mirrored', ({ controls }) => void (controls.pattern.of = next === NONE ? null : next))
      }
    />
  )
}
