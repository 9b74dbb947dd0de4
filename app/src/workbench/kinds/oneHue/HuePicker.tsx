import Box from '@mui/material/Box'
import { hueOf, sceneGraph } from '@welkinar/core'
import { DropperButton } from '../../../common/ColourField'
import { changeKind } from '../../../scene/sceneStore'
import { HueStrip } from '../../toneChart/HueStrip'
import type { EffectPanelProps } from '../effectInterface'

/** The hues that are changed, and a tap on the photo that picks one. */
export function HuePicker({ source, effect }: EffectPanelProps<'oneHue'>) {
  const { hue, width } = effect.controls.pattern
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <HueStrip hue={hue} width={width} />
      <Box sx={{ justifySelf: 'start' }}>
        <DropperButton
          what="Hue"
          tones={sceneGraph(source, { kind: 'beneath', effectId: effect.id })}
          onTake={(_hex, colour) =>
            changeKind('oneHue', effect.id, 'Pick a hue', ({ controls }) => void (controls.pattern.hue = Math.round(hueOf(colour))))
          }
        />
      </Box>
    </Box>
  )
}
