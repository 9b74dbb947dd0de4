import Box from '@mui/material/Box'
import { hueOf, maskContext, tonesOf, type ColourMask } from '@welkinar/core'
import { DropperButton } from '../../controls/ColourField'
import { changeMask } from '../../../scene/sceneStore'
import { HueStrip } from '../../toneChart/HueStrip'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { TonesFrom } from '../../controls/TonesFrom'
import { useSource } from '../../../scene/openSceneContext'

/** A mask by hue and chroma: a strip with the hues that are open, and a tap on the photo that picks one. */
export function ColourEditor({ list, mask }: MaskEditorProps<ColourMask>) {
  const source = useSource()
  return (
    <>
      <HueStrip hue={mask.hue} width={mask.width} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'end' }}>
        <DropperButton
          what="Hue"
          tones={tonesOf(mask, maskContext(source, list.owner))}
          onTake={(_hex, colour) => changeMask(list, mask, 'Pick a hue', (target) => void (target.hue = Math.round(hueOf(colour))))}
        />
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <TonesFrom list={list} mask={mask} />
        </Box>
      </Box>
      <MaskNumbers list={list} mask={mask} names={['hue', 'width', 'chromaFrom', 'chromaTo', 'softness']} />
    </>
  )
}
