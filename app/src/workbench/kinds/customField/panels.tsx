import type { EffectPanelProps } from '../effectInterface'
import { FieldSource } from './FieldSource'
import { FieldSteps } from './FieldSteps'
import { StudioLink } from './StudioLink'

/** What a field is made from beside its numbers. */
export function PatternPanel({ source, effect }: EffectPanelProps<'customField'>) {
  return (
    <>
      <FieldSource source={source} effect={effect} />
      <StudioLink effectId={effect.id} />
    </>
  )
}

/** What is done to it. */
export function ShapePanel({ source, effect }: EffectPanelProps<'customField'>) {
  return <FieldSteps effect={effect} photo={source.photo} />
}
