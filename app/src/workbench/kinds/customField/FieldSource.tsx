import { nameOfEffect } from '@welkinar/core'
import { Choice } from '../../../common/Choice'
import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { ChoosePicture } from '../../pictures/ChoosePicture'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

const NONE = 'none'

/** The other effect or the picture that a custom field is made from. */
export function FieldSource({ effect }: Omit<EffectPanelProps<'customField'>, 'pool'>) {
  const source = useSource()
  const { pattern } = effect.controls
  const set = (label: string, part: Partial<EffectOf<'customField'>['controls']['pattern']>) =>
    changeKind('customField', effect.id, label, ({ controls }) => void Object.assign(controls.pattern, part))
  if (pattern.source === 'effect') {
    const others = source.effects.filter(({ id }) => id !== effect.id)
    return (
      <Choice
        label="Effect"
        value={others.find(({ id }) => id === pattern.of)?.id ?? NONE}
        options={[[NONE, 'Not chosen'], ...others.map((other) => [other.id, nameOfEffect(other)] as const)]}
        onChange={(next) => set('What the field is made from', { of: next === NONE ? null : next })}
      />
    )
  }
  if (pattern.source !== 'picture') return null
  return <ChoosePicture picture={pattern.picture} onChoose={(picture) => set('Picture of the field', { picture })} />
}
