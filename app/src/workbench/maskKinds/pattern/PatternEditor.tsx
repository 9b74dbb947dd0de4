import { nameOfEffect } from '@welkinar/core'
import type { PatternMask } from '@welkinar/core'
import { Choice } from '../../../common/Choice'
import { changeMask } from '../../../scene/sceneStore'
import type { MaskEditorProps } from '../maskInterface'
import { useSource } from '../../../scene/openSceneContext'

const NONE = 'none'

/** Whose pattern the mask is. */
export function PatternEditor({ list, mask }: MaskEditorProps<PatternMask>) {
  const source = useSource()
  const others = source.effects.filter(({ id }) => id !== list.owner)
  const known = others.some(({ id }) => id === mask.effectId)
  return (
    <Choice
      label="Effect"
      value={known && mask.effectId !== null ? mask.effectId : NONE}
      options={[[NONE, 'Not chosen'], ...others.map((other) => [other.id, nameOfEffect(other)] as const)]}
      onChange={(next) => changeMask(list, mask, 'Mask: effect', (target) => void (target.effectId = next === NONE ? null : next))}
    />
  )
}
