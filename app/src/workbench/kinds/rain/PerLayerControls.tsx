import Box from '@mui/material/Box'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useState } from 'react'
import { ink } from '../../../theme'
import { SchemaControl } from '../../controls/SchemaControl'
import type { EffectPanelProps } from '../effectInterface'
import { TwoColumns } from '../../../common/TwoColumns'

/** The layers of the drops, one at a time. */
export function PerLayerControls({ effect }: EffectPanelProps<'rain'>) {
  const [shown, setShown] = useState(0)
  const { perLayer, layers: used, by } = effect.controls.pattern
  const layer = perLayer[shown]
  if (!layer || by === 'camera') return null
  return (
    <Box role="group" aria-label="Layers" sx={{ borderTop: `1px solid ${ink.rule}`, pt: 3, mt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 2 }}>
        <Box>Layer, far to near</Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={shown}
          onChange={(_, next: number | null) => next !== null && setShown(next)}
          aria-label="Layer"
        >
          {perLayer.map((_, index) => (
            <ToggleButton
              key={index}
              value={index}
              aria-label={`Layer ${index + 1}`}
              sx={{ color: index < used ? ink.ink : ink.secondary }}
            >
              {index + 1}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      {shown < used ? (
        <TwoColumns>
          {Object.keys(layer).map((key) => (
            <SchemaControl key={key} effect={effect} path={`pattern.perLayer.${shown}.${key}`} />
          ))}
        </TwoColumns>
      ) : (
        <Box sx={{ color: ink.secondary }}>Not in use: raise Depth layers to {shown + 1}.</Box>
      )}
    </Box>
  )
}
