import Box from '@mui/material/Box'
import { sceneGraph } from '@welkinar/core'
import { ink } from '../../../theme'
import { LookPicture } from '../../pictures/LookPicture'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

/** Css px. */
const SIZE = { width: 287, height: 96 }

/** What comes back of the detail, on mid-grey. */
export function DetailPicture({ effect }: EffectPanelProps<'softFocus'>) {
  const source = useSource()
  const { detail, detailBy } = effect.controls.shape
  if (detail === 0 || detailBy === 'off') return null
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <LookPicture
        node={sceneGraph(source, { kind: 'detail', effectId: effect.id })}
        photo={source.photo}
        {...SIZE}
        // Pixel for pixel: fine detail is not seen otherwise.
        part={Math.min(1, SIZE.width / source.photo.width)}
        label="The detail that comes back"
      />
      <Box sx={{ color: ink.secondary }}>The detail that comes back, four times as strong, pixel for pixel in the middle of the photo.</Box>
    </Box>
  )
}
