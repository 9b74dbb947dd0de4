import Box from '@mui/material/Box'
import { sceneGraph } from '@welkinar/core'
import { ink } from '../../../theme'
import { LookPicture } from '../../LookPicture'
import type { EffectPanelProps } from '../effectInterface'

/** Css px; a part of the photo's width that lets fine detail be seen. */
const SIZE = { width: 287, height: 96 }
const PART = 0.25

/** What comes back of the detail, on mid-grey. */
export function DetailPicture({ pool, source, effect }: EffectPanelProps<'softFocus'>) {
  const { detail, detailBy } = effect.controls.shape
  if (detail === 0 || detailBy === 'off') return null
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <LookPicture
        pool={pool}
        node={sceneGraph(source, { kind: 'detail', effectId: effect.id })}
        photo={source.photo}
        {...SIZE}
        part={PART}
        label="The detail that comes back"
      />
      <Box sx={{ color: ink.secondary }}>The detail that comes back, in the middle of the photo.</Box>
    </Box>
  )
}
