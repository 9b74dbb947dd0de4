import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { OutlineMask } from '@welkinar/core'
import { changeMask, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { MaskEditorProps } from '../maskInterface'
import { ToolButton } from '../../steps/where/ToolButton'

/** Outlines and their holes: drawn on the photo, removed here. */
export function OutlineEditor({ list, mask }: MaskEditorProps<OutlineMask>) {
  const drawing = useScene((state) => state.tool?.kind === 'outline')
  const remove = (index: number) => changeMask(list, mask, 'Remove outline', (target) => void target.paths.splice(index, 1))
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <ToolButton tool={{ kind: 'outline', hole: false }} label="Draw outline" />
        <ToolButton tool={{ kind: 'outline', hole: true }} label="Draw hole" />
      </Box>
      <Box sx={{ color: ink.secondary }}>
        {drawing
          ? 'Tap for a corner, drag for a curve. Tap the first corner or press Enter to close; Esc takes the last corner back.'
          : 'Drag corners and curve handles on the photo. Double-tap a side to put a corner in, a corner to take it out.'}
      </Box>
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
