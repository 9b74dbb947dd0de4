import { limitsOf, type controlOf } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'
import { controlOn } from '../../common/controlOn'
import { NumberControl } from '../../common/NumberControl'

interface SchemaNumberProps {
  /** Its words and its limits; what has none is not shown. */
  readonly schema: Parameters<typeof controlOf>[0]
  readonly value: number
  /** What the mark beside a changed value goes back to. */
  readonly start: number
  /** `label` is the control's own word, for the history; `gesture` names a drag, whose changes are one step for undo. */
  onChange(value: number, gesture: string | undefined, label: string): void
}

/** A number of the document, made from its schema. */
export function SchemaNumber({ schema, value, start, onChange }: SchemaNumberProps) {
  const photo = useScene((state) => state.history?.scene.photo)
  const control = controlOn(schema, photo, start)
  if (!control) return null
  return (
    <NumberControl
      control={control}
      limits={limitsOf(schema)}
      value={value}
      start={start}
      onChange={(next, gesture) => onChange(next, gesture, control.label)}
    />
  )
}
