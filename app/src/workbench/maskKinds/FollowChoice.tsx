import { noMarks } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { useSource } from '../../scene/openSceneContext'

const OWN = 'own'

interface LevelChoiceProps {
  readonly value: 'horizon' | 'waterline' | null
  onChange(follows: 'horizon' | 'waterline' | null): void
}

/** The mark that a mask along a line lies on. */
export function LevelChoice({ value, onChange }: LevelChoiceProps) {
  const source = useSource()
  const { horizon, waterline } = source.marks ?? noMarks
  const options: (readonly [string, string])[] = []
  if (horizon) options.push(['horizon', 'The horizon'])
  if (waterline) options.push(['waterline', 'The waterline'])
  return (
    <FollowChoice
      label="Lies on"
      own="A place of its own"
      value={value}
      options={options}
      onChange={(next) => onChange(next as LevelChoiceProps['value'])}
    />
  )
}

interface FollowChoiceProps {
  readonly label: string
  readonly own: string
  readonly value: string | null
  readonly options: readonly (readonly [string, string])[]
  onChange(follows: string | null): void
}

/** Shown once there is a mark to follow. */
export function FollowChoice({ label, own, value, options, onChange }: FollowChoiceProps) {
  if (options.length === 0) return null
  const known = options.some(([option]) => option === value)
  return (
    <Choice
      label={label}
      value={known && value !== null ? value : OWN}
      options={[[OWN, own], ...options]}
      onChange={(next) => onChange(next === OWN ? null : next)}
    />
  )
}
