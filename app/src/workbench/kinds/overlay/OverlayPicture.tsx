import { changeKind } from '../../../scene/sceneStore'
import { ChoosePicture } from '../../pictures/ChoosePicture'
import type { EffectPanelProps } from '../effectInterface'

/** The picture that is laid over the photo. */
export function OverlayPicture({ effect }: EffectPanelProps<'overlay'>) {
  return (
    <ChoosePicture
      picture={effect.controls.pattern.picture}
      use="seen"
      onChoose={(picture) =>
        changeKind('overlay', effect.id, 'Picture that is laid over', ({ controls }) => void (controls.pattern.picture = picture))
      }
    />
  )
}
