import Box from '@mui/material/Box'
import { balanceForGrey, linearOf, sceneGraph } from '@welkinar/core'
import { DropperButton } from '../../controls/ColourField'
import { changeKind } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

/** White balance from a place that ought to be grey. */
export function GreyPicker({ effect }: EffectPanelProps<'adjust'>) {
  const source = useSource()
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <Box sx={{ justifySelf: 'start' }}>
        <DropperButton
          what="Grey"
          tones={sceneGraph(source, { kind: 'beneath', effectId: effect.id })}
          onTake={(_hex, colour) =>
            changeKind(
              'adjust',
              effect.id,
              'White balance',
              ({ controls }) => void Object.assign(controls.shape, balanceForGrey(linearOf(colour))),
            )
          }
        />
      </Box>
      <Box sx={{ color: ink.secondary }}>Press a place that ought to be grey: warmth and tint follow.</Box>
    </Box>
  )
}
