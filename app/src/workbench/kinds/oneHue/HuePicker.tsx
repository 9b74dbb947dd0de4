import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { hueOf, sceneGraph } from '@welkinar/core'
import { DropperButton } from '../../controls/ColourField'
import { changeKind, useScene } from '../../../scene/sceneStore'
import { HueStrip } from '../../toneChart/HueStrip'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

/** The hues that are changed, and a tap on the photo that picks one. */
export function HuePicker({ effect }: EffectPanelProps<'oneHue'>) {
  const source = useSource()
  const { hue, width } = effect.controls.pattern
  const pulling = useScene(({ tool }) => tool?.kind === 'pull')
  const beneath = sceneGraph(source, { kind: 'beneath', effectId: effect.id })
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <HueStrip hue={hue} width={width} />
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
        <DropperButton
          what="Hue"
          tones={beneath}
          onTake={(_hex, colour) =>
            changeKind('oneHue', effect.id, 'Pick a hue', ({ controls }) => void (controls.pattern.hue = Math.round(hueOf(colour))))
          }
        />
        <Button
          variant={pulling ? 'contained' : 'outlined'}
          aria-pressed={pulling}
          onClick={() => useScene.getState().set({ tool: pulling ? undefined : { kind: 'pull' } })}
        >
          Press and pull
        </Button>
      </Box>
    </Box>
  )
}
