import Box from '@mui/material/Box'
import { hueOf, maskContext, tonesOf, type ColourMask } from '@welkinar/core'
import { DropperButton } from '../../../common/ColourField'
import { changeMask } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumbers } from '../../steps/where/MaskNumbers'
import { TonesFrom } from '../../steps/where/TonesFrom'

/** Hues at one lightness and chroma, so that the strip says hue and nothing else. */
const hues = Array.from({ length: 25 }, (_, i) => `oklch(0.68 0.13 ${i * 15})`).join(', ')

/** A mask by hue and chroma: a strip with the hues that are open, and a tap on the photo that picks one. */
export function ColourEditor({ source, list, mask }: MaskEditorProps<ColourMask>) {
  const from = (((mask.hue - mask.width / 2) % 360) + 360) % 360
  return (
    <>
      <Box aria-hidden sx={{ height: 22, position: 'relative', overflow: 'hidden', background: `linear-gradient(90deg, ${hues})` }}>
        {[from, from - 360].map((start) => (
          <Box
            key={start}
            sx={{
              position: 'absolute',
              left: `${start / 3.6}%`,
              width: `${mask.width / 3.6}%`,
              bottom: 0,
              height: 5,
              bgcolor: ink.ink,
              borderTop: '1px solid #fff',
            }}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'end' }}>
        <DropperButton
          what="Hue"
          tones={tonesOf(mask, maskContext(source, list.owner))}
          onTake={(_hex, colour) => changeMask(list, mask, 'Pick a hue', (target) => void (target.hue = Math.round(hueOf(colour))))}
        />
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <TonesFrom source={source} list={list} mask={mask} />
        </Box>
      </Box>
      <MaskNumbers source={source} list={list} mask={mask} names={['hue', 'width', 'chromaFrom', 'chromaTo', 'softness']} />
    </>
  )
}
