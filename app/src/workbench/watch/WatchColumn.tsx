import Box from '@mui/material/Box'
import ToggleButton from '@mui/material/ToggleButton'
import { frameOfSource, sceneSchema } from '@welkinar/core'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useHint } from '../../keys/keymap'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { ColourHere } from './ColourHere'
import { Histogram } from './Histogram'
import { Watchpoints } from './Watchpoints'
import { useSource } from '../../scene/openSceneContext'

/** What is looked at while the picture is made: its tones, what is clipped, the colour under the pointer, places pixel for pixel, and the picture mirrored or in turn with the photo. */
export function WatchColumn() {
  const source = useSource()
  const marksClipped = useScene((state) => state.marksClipped)
  const mirrored = useScene((state) => state.mirrored)
  const blinking = useScene((state) => state.blinking)
  const { set, change } = useScene.getState()
  const { width, height } = frameOfSource(source)
  return (
    <Box
      component="aside"
      aria-label="Watch column"
      sx={{
        width: 208,
        flex: 'none',
        overflowY: 'auto',
        borderRight: `1px solid ${ink.rule}`,
        bgcolor: ink.paper,
        p: 3,
        display: 'grid',
        gap: 3,
        alignContent: 'start',
      }}
    >
      <Histogram />
      <Toggle
        on={marksClipped}
        onChange={(on) => set({ marksClipped: on })}
        hint={useHint('Stripes on what has become white, squares on what has become black', 'clipped')}
      >
        Mark what clips
      </Toggle>
      <ColourHere />
      <Watchpoints />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 2 }}>
        <Toggle
          on={mirrored}
          onChange={(on) => set({ mirrored: on })}
          hint={useHint('The picture the other way round, to judge how it is composed', 'mirror')}
        >
          Flip view
        </Toggle>
        <Toggle
          on={blinking}
          onChange={(on) => set({ blinking: on })}
          hint={useHint('The picture and what it is compared with, in turn', 'blink')}
        >
          Blink
        </Toggle>
      </Box>
      <SchemaNumber
        schema={sceneSchema.shape.amount}
        value={source.amount ?? 100}
        start={100}
        onChange={(amount, gesture) =>
          change('Amount of the whole stack', (scene) => void (scene.amount = amount), gesture && `stack ${gesture}`)
        }
      />
      <Box sx={{ color: ink.secondary }}>
        {width} × {height} px, {((width * height) / 1e6).toFixed(1)} MP
      </Box>
    </Box>
  )
}

interface ToggleProps {
  readonly on: boolean
  readonly hint: string
  readonly children: string
  onChange(on: boolean): void
}

function Toggle({ on, hint, children, onChange }: ToggleProps) {
  return (
    <ToggleButton value="on" size="small" selected={on} title={hint} onChange={() => onChange(!on)}>
      {children}
    </ToggleButton>
  )
}
