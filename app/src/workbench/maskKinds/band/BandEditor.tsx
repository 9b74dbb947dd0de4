import type { BandMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { LevelChoice } from '../FollowChoice'
import type { MaskEditorProps } from '../maskInterface'

/** A band along a line, which can lie on a mark. */
export function BandEditor({ list, mask }: MaskEditorProps<BandMask>) {
  return (
    <>
      <LevelChoice
        value={mask.follows}
        onChange={(follows) => changeMask(list, mask, 'Place of the mask', (target) => void (target.follows = follows))}
      />
      <MaskNumbers list={list} mask={mask} names={['width', 'softness', ...(mask.follows ? [] : ['turn', 'x', 'y'])]} />
    </>
  )
}
