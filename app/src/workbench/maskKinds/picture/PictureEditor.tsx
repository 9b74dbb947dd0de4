import type { PictureMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { ChoosePicture } from '../../pictures/ChoosePicture'
import type { MaskEditorProps } from '../maskInterface'

/** A grey picture from a file. */
export function PictureEditor({ list, mask }: MaskEditorProps<PictureMask>) {
  return (
    <ChoosePicture
      picture={mask.picture}
      onChoose={(picture) => changeMask(list, mask, 'Picture of the mask', (target) => void (target.picture = picture))}
    />
  )
}
