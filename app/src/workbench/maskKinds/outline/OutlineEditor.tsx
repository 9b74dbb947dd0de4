import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { OutlineMask } from '@welkinar/core'
import { changeMask, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { MaskEditorProps } from '../maskInterface'
import { ToolButton } from '../../controls/ToolButton'
import { TwoColumns } from '../../../common/TwoColumns'

const hints = {
  corners: 'Tap for a corner, drag for a curve. Tap the first corner or press Enter to close; Esc takes the last corner back.',
  freehand: 'Go around it in one stroke; it closes when you let go.',
  none: 'Drag corners and curve handles on the photo. Double-tap a side to put a corner in, a corner to take it out.',
} as const

/** Outlines and their holes: drawn on the photo, removed here. */
export function OutlineEditor({ list, mask }: MaskEditorProps<OutlineMask>) {
  const drawing = useScene(({ tool }) => (tool?.kind === 'outline' ? tool.by : undefined))
  const remove = (index: number) => changeMask(list, mask, 'Remove outline', (target) => void target.paths.splice(index, 1))
  return (
    <>
      <TwoColumns gap={2}>
        <ToolButton tool={{ kind: 'outline', hole: false, by: 'corners' }} label="Draw outline" />
        <ToolButton tool={{ kind: 'outline', hole: true, by: 'corners' }} label="Draw hole" />
        <ToolButton tool={{ kind: 'outline', hole: false, by: 'freehand' }} label="Outline freehand" />
        <ToolButton tool={{ kind: 'outline', hole: true, by: 'freehand' }} label="Hole freehand" />
      </TwoColumns>
      <Box sx={{ color: ink.secondary }}>{hints[drawing ?? 'none']}</Box>
      {mask.paths.map(({ hole, corners }, index) => (
        <Box key={index} sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
          <Box sx={{ flex: 1 }}>
            {hole ? 'Hole' : 'Outline'} {index + 1}, {corners.length} corners
          </Box>
          <Button variant="text" onClick={() => remove(index)} aria-label={`Remove ${hole ? 'hole' : 'outline'} ${index + 1}`}>
            Remove
          </Button>
        </Box>
      ))}
    </>
  )
}
