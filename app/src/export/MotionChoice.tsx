import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { NumberControl } from '../common/NumberControl'
import { ink } from '../theme'
import type { Motion } from './useExport'

interface MotionChoiceProps {
  readonly motion: Motion | undefined
  onChange(motion: Motion | undefined): void
}

/** As the Workbench plays it. */
const start: Motion = { seconds: 8, rate: 12 }

/** Whether the file moves, how long it takes to come round, and how fine its steps are. */
export function MotionChoice({ motion, onChange }: MotionChoiceProps) {
  return (
    <Box sx={{ mt: 2 }}>
      <FormControlLabel
        control={<Switch checked={motion !== undefined} onChange={(_, on) => onChange(on ? start : undefined)} />}
        label="As a picture that moves"
        sx={{ ml: 0, gap: 2 }}
      />
      {motion && (
        <>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 4, mt: 1 }}>
            <NumberControl
              control={{ label: 'Comes round in', unit: 's', usual: [1, 20], step: 0.5 }}
              limits={{ least: 0.5, most: 60, whole: false }}
              value={motion.seconds}
              start={start.seconds}
              onChange={(seconds) => onChange({ ...motion, seconds })}
            />
            <NumberControl
              control={{ label: 'Frames a second', unit: '', usual: [6, 30], step: 1 }}
              limits={{ least: 2, most: 30, whole: true }}
              value={motion.rate}
              start={start.rate}
              onChange={(rate) => onChange({ ...motion, rate })}
            />
          </Box>
          <Box sx={{ mt: 1, color: ink.secondary }}>
            {Math.round(motion.seconds * motion.rate)} frames. Browsers play it; other programs show the first.
          </Box>
        </>
      )}
    </Box>
  )
}
