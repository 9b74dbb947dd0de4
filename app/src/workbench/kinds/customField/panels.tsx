import type { EffectPanelProps } from '../effectInterface'
import { FieldSource } from './FieldSource'
import { FieldSteps } from './FieldSteps'
import { StudioLink } from './StudioLink'
import { useSource } from '../../../scene/openSceneContext'

/** What a field is made from beside its numbers. */
export function PatternPanel({ effect }: EffectPanelProps<'customField'>) {
  return (
    <>
      <FieldSource effect={effect} />
      <StudioLink effectId={effect.id} />
    </>
  )
}

/** What is done to it. */
export function ShapePanel({ effect }: EffectPanelProps<'customField'>) {
  const source = useSource()
  return <FieldSteps effect={effect} photo={source.photo} />
}
