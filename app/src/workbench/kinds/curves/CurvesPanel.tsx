import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useQuery } from '@tanstack/react-query'
import { curveTable, definitionOf, listLimit, sceneGraph, schemaAt } from '@welkinar/core'
import { useState } from 'react'
import { changeKind } from '../../../scene/sceneStore'
import { ink, channel } from '../../../theme'
import { CurveEditor } from '../../toneChart/CurveEditor'
import type { EffectPanelProps } from '../effectInterface'
import { usePool, useSource } from '../../../scene/openSceneContext'

type Channel = 'all' | 'red' | 'green' | 'blue'

/** Words, colour of the line, and what of the picture its histogram is of. */
const channels = {
  all: { label: 'All', colour: undefined, tones: 'encodedLuma' },
  red: { label: 'Red', colour: channel.red, tones: 'red' },
  green: { label: 'Green', colour: channel.green, tones: 'green' },
  blue: { label: 'Blue', colour: channel.blue, tones: 'blue' },
} as const

const most = listLimit(schemaAt(definitionOf('curves').controls, 'pattern.all'))?.most ?? 0
const STEPS = 512

/** The curves of all channels and of each, over the histogram of what lies beneath. */
export function CurvesPanel({ effect }: EffectPanelProps<'curves'>) {
  const pool = usePool()
  const source = useSource()
  const [channel, setChannel] = useState<Channel>('all')
  const { label, colour, tones } = channels[channel]
  const beneath = sceneGraph(source, { kind: 'beneath', effectId: effect.id })
  const histogram = useQuery({
    queryKey: ['histogram', beneath.key, source.photo.id, tones],
    queryFn: ({ signal }) => pool.toneHistogram(beneath, source.photo, tones, signal),
    staleTime: Infinity,
  })
  const points = effect.controls.pattern[channel]
  const table = curveTable(points, STEPS)
  const change = (words: string, next: typeof points, gesture?: string) =>
    changeKind(
      'curves',
      effect.id,
      words,
      ({ controls }) => void (controls.pattern[channel] = next),
      gesture && `${effect.id} ${channel} ${gesture}`,
    )
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <CurveEditor
        label={`Curve of ${channel === 'all' ? 'all channels' : channel}`}
        level="comes out as"
        points={points}
        most={most}
        curve={(tone) => table[Math.round(tone * STEPS)] ?? 0}
        histogram={histogram.data}
        {...(colour ? { colour } : {})}
        onPoints={(next, gesture) => change(`Curve: ${label}`, next, gesture)}
      />
      <Box sx={{ display: 'flex', gap: 2 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={channel}
          aria-label="Channel"
          onChange={(_, next: Channel | null) => next && setChannel(next)}
        >
          {Object.entries(channels).map(([name, one]) => (
            <ToggleButton key={name} value={name} sx={{ px: '9px' }}>
              {one.label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ flex: 1 }} />
        <Button
          variant="text"
          onClick={() =>
            change(`Curve: ${label}, straight`, [
              { x: 0, y: 0 },
              { x: 1, y: 1 },
            ])
          }
        >
          Reset
        </Button>
      </Box>
      <Box sx={{ color: ink.secondary }}>Press the chart for a point, drag it; a double press takes it out.</Box>
    </Box>
  )
}
