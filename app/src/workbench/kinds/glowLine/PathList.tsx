import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { ToolButton } from '../../controls/ToolButton'
import type { EffectPanelProps } from '../effectInterface'
import { changePaths } from './PathHandles'

/** The lines that glow: drawn on the photo, removed here. */
export function PathList({ effect }: EffectPanelProps<'glowLine'>) {
  const drawing = useScene((state) => state.tool?.kind === 'path')
  const { paths } = effect.controls.pattern
  return (
    <Box role="group" aria-label="Lines" sx={{ borderTop: `1px solid ${ink.rule}`, mt: 1, pt: 3, display: 'grid', gap: 2 }}>
      <Box sx={{ justifySelf: 'start' }}>
        <ToolButton tool={{ kind: 'path' }} label="Draw a line" />
      </Box>
      <Box sx={{ color: ink.secondary }}>
        {drawing
          ? 'Tap for a corner, drag for a curve. Enter or a double tap ends the line; Esc takes the last corner back.'
          : 'Drag corners and curve handles on the photo. To hide a part behind something, subtract an outline under Where.'}
      </Box>
      {paths.map((corners, index) => (
        <Box key={index} sx={{ display: 'flex', alignItems: 'center' }}>
          <Box sx={{ flex: 1 }}>
            Line {index + 1}, {corners.length} corners
          </Box>
          <Button
            variant="text"
            aria-label={`Remove line ${index + 1}`}
            onClick={() => changePaths(effect.id, 'Remove a line', (all) => void all.splice(index, 1))}
          >
            Remove
          </Button>
        </Box>
      ))}
    </Box>
  )
}
