import { FOCAL_POINT, noMarks, type EllipseMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { FollowChoice } from '../FollowChoice'
import type { MaskEditorProps } from '../maskInterface'
import { useSource } from '../../../scene/openSceneContext'

/** An ellipse; its centre can be a scene mark. */
export function EllipseEditor({ list, mask }: MaskEditorProps<EllipseMask>) {
  const source = useSource()
  const { lights, focal } = source.marks ?? noMarks
  const options: (readonly [string, string])[] = lights.map(({ id, name }) => [id, name])
  if (focal) options.unshift([FOCAL_POINT, 'The centre of interest'])
  return (
    <>
      <FollowChoice
        label="Centre"
        own="A place of its own"
        value={mask.follows}
        options={options}
        onChange={(follows) => changeMask(list, mask, 'Centre of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers
        list={list}
        mask={mask}
        names={['radiusX', 'radiusY', 'turn', 'softness', ...(mask.follows === null ? ['x', 'y'] : [])]}
      />
    </>
  )
}
