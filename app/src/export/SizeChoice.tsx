import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import type { Size, OutputSize } from '@welkinar/core'
import { NumberControl } from '../common/NumberControl'
import { ink } from '../theme'

interface SizeChoiceProps {
  readonly full: Size
  readonly made: Size
  readonly size: OutputSize
  onChange(size: OutputSize): void
}

const START = 2048
const LEAST = 16

/** How large the file is made: as the photo is, or with a longer side of so many px. */
export function SizeChoice({ full, made, size, onChange }: SizeChoiceProps) {
  const most = Math.max(full.width, full.height)
  const { longSide, sharpened } = size
  return (
    <Box sx={{ mb: 4 }}>
      <ToggleButtonGroup
        exclusive
        fullWidth
        aria-label="Size"
        value={longSide === undefined}
        onChange={(_, next: boolean | null) => next !== null && onChange({ ...size, longSide: next ? undefined : Math.min(START, most) })}
      >
        <ToggleButton value={true}>Full size</ToggleButton>
        <ToggleButton value={false}>Smaller</ToggleButton>
      </ToggleButtonGroup>
      {longSide !== undefined && (
        <Box sx={{ mt: 3 }}>
          <NumberControl
            control={{ label: 'Longer side', unit: 'px', usual: [Math.min(320, most), most], step: 1 }}
            limits={{ least: Math.min(LEAST, most), most, whole: true }}
            value={longSide}
            start={Math.min(START, most)}
            onChange={(next) => onChange({ ...size, longSide: next })}
          />
          <FormControlLabel
            control={<Switch checked={sharpened} onChange={(_, next) => onChange({ ...size, sharpened: next })} />}
            label="Sharpen for this size"
            sx={{ ml: 0, gap: 2 }}
          />
        </Box>
      )}
      <Box sx={{ mt: 2, color: ink.secondary }}>
        {made.width} × {made.height} px
      </Box>
    </Box>
  )
}
