import { FOCAL_POINT, type BandMask, type EllipseMask, type LineMask, type PictureSource, noMarks } from '@welkinar/core'
import { Choice } from '../../../../common/Choice'
import { changeMask } from '../../../../scene/sceneStore'
import type { MaskEditorProps } from '../MaskEditor'
import { MaskNumbers } from '../MaskNumbers'

const OWN = 'own'

/** An ellipse; its centre can be a scene mark. */
export function EllipseEditor({ source, owner, mask }: MaskEditorProps<EllipseMask>) {
  const { lights, focal } = source.marks ?? noMarks
  const options: (readonly [string, string])[] = lights.map(({ id, name }) => [id, name])
  if (focal) options.unshift([FOCAL_POINT, 'The focal point'])
  return (
    <>
      <FollowChoice
        label="Centre"
        own="A place of its own"
        value={mask.follows}
        options={options}
        onChange={(follows) => changeMask(owner.id, mask, 'Centre of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers
        source={source}
        owner={owner}
        mask={mask}
        names={['radiusX', 'radiusY', 'turn', 'softness', ...placeNames(mask.follows)]}
      />
    </>
  )
}

export function LineEditor({ source, owner, mask }: MaskEditorProps<LineMask>) {
  return (
    <>
      <LevelChoice
        source={source}
        value={mask.follows}
        onChange={(follows) => changeMask(owner.id, mask, 'Place of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers source={source} owner={owner} mask={mask} names={mask.follows ? [] : ['x', 'y', 'toX', 'toY']} />
    </>
  )
}

export function BandEditor({ source, owner, mask }: MaskEditorProps<BandMask>) {
  return (
    <>
      <LevelChoice
        source={source}
        value={mask.follows}
        onChange={(follows) => changeMask(owner.id, mask, 'Place of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers source={source} owner={owner} mask={mask} names={['width', 'softness', ...(mask.follows ? [] : ['turn', 'x', 'y'])]} />
    </>
  )
}

function placeNames(follows: string | null): string[] {
  return follows === null ? ['x', 'y'] : []
}

interface LevelChoiceProps {
  readonly source: PictureSource
  readonly value: 'horizon' | 'waterline' | null
  onChange(follows: 'horizon' | 'waterline' | null): void
}

function LevelChoice({ source, value, onChange }: LevelChoiceProps) {
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
function FollowChoice({ label, own, value, options, onChange }: FollowChoiceProps) {
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
