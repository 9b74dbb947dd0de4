import { effectOfRegion, type PatternMask } from '@welkinar/core'
import { Choice } from '../../../../common/Choice'
import { changeMask } from '../../../../scene/sceneStore'
import type { MaskEditorProps } from '../MaskEditor'

const NONE = 'none'

/** Whose pattern the mask is. */
export function PatternEditor({ source, owner, mask }: MaskEditorProps<PatternMask>) {
  const own = effectOfRegion(owner.id) ?? owner.id
  const others = source.effects.filter(({ id }) => id !== own)
  const known = others.some(({ id }) => id === mask.effectId)
  return (
    <Choice
      label="Effect"
      value={known && mask.effectId !== null ? mask.effectId : NONE}
      options={[[NONE, 'Not chosen'], ...others.map(({ id, name }) => [id, name] as const)]}
      onChange={(next) => changeMask(owner.id, mask, 'Mask: effect', (target) => void (target.effectId = next === NONE ? null : next))}
    />
  )
}
