import type { LineMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { LevelChoice } from '../FollowChoice'
import type { MaskEditorProps } from '../maskInterface'

/** The fall across a line, which can lie on a mark. */
export function LineEditor({ list, mask }: MaskEditorProps<LineMask>) {
  return (
    <>
      <LevelChoice
        value={mask.follows}
        onChange={(follows) => changeMask(list, mask, 'Place of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers list={list} mask={mask} names={mask.follows ? [] : ['x', 'y', 'toX', 'toY']} />
    </>
  )
}
