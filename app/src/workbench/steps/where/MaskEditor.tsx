import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Switch from '@mui/material/Switch'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useQuery } from '@tanstack/react-query'
import {
  controlOf,
  hardRange,
  luminosityMaskSchema,
  sceneGraph,
  toneChannels,
  type Effect,
  type LuminosityMask,
  type PictureSource,
  type ToneChannel,
  type ToneCurve,
  type ToneHandles,
} from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { NumberControl } from '../../../common/NumberControl'
import { changeEffect } from '../../../scene/sceneStore'
import { ToneCurveEditor } from './ToneCurveEditor'
import { curveLabels } from './whereSummary'

interface MaskEditorProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect
  readonly mask: LuminosityMask
}

const channelLabels: Record<ToneChannel, string> = {
  encodedLuma: 'Luma, encoded',
  linearLuminance: 'Luminance, linear',
  lightness: 'Lightness L*',
  red: 'Red',
  green: 'Green',
  blue: 'Blue',
  maximum: 'Brightest channel',
  saturation: 'Saturation',
}

/** Handles that come closest to a quick choice, from which a range starts. */
const handlesOf: Record<ToneCurve, ToneHandles | undefined> = {
  brights: [0, 1, 1, 1],
  darks: [0, 0, 0, 1],
  mids: [0, 0.5, 0.5, 1],
  range: undefined,
}

const curves: readonly ToneCurve[] = ['brights', 'mids', 'darks', 'range']

/** A luminosity mask: its curve over the histogram of what it reads, quick choices, and its numbers. */
export function MaskEditor({ pool, source, effect, mask }: MaskEditorProps) {
  const index = source.effects.findIndex(({ id }) => id === effect.id)
  const beneath = sceneGraph({ ...source, effects: source.effects.slice(0, index) })
  const tones = mask.tonesFrom === 'photo' ? sceneGraph(source, { kind: 'photo' }) : beneath
  const histogram = useQuery({
    queryKey: ['histogram', tones.key, mask.channel],
    queryFn: () => pool.toneHistogram(tones, source.photo, mask.channel),
    staleTime: Infinity,
  })
  const change = (label: string, edit: (mask: LuminosityMask) => void, gesture?: string) =>
    changeEffect(
      effect.id,
      label,
      (one) => {
        const target = one.where.masks.find(({ id }) => id === mask.id)
        if (target) edit(target)
      },
      gesture && `${mask.id} ${gesture}`,
    )
  const choose = (curve: ToneCurve) =>
    change(`Mask: ${curveLabels[curve]}`, (target) => {
      const handles = handlesOf[curve]
      target.curve = curve
      if (handles) target.handles = [...handles]
    })
  const number = (key: 'steepness' | 'feather' | 'strength', start: number) => {
    const schema = luminosityMaskSchema.shape[key]
    const control = controlOf(schema)
    if (!control) return null
    return (
      <NumberControl
        control={control}
        hard={hardRange(schema)}
        value={mask[key]}
        start={start}
        onChange={(value, gesture) =>
          change(`Mask: ${control.label}`, (target) => void (target[key] = value), gesture && `${key} ${gesture}`)
        }
      />
    )
  }
  return (
    <Box role="group" aria-label="Luminosity mask" sx={{ display: 'grid', gap: 2 }}>
      <ToneCurveEditor
        mask={mask}
        histogram={histogram.data}
        onHandles={(handles, gesture) =>
          change(
            'Mask: handles',
            (target) => {
              target.curve = 'range'
              target.handles = [...handles]
            },
            gesture,
          )
        }
      />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={mask.curve}
          aria-label="Curve"
          onChange={(_, next: ToneCurve | null) => next && choose(next)}
        >
          {curves.map((curve) => (
            <ToggleButton key={curve} value={curve}>
              {curveLabels[curve]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ flex: 1 }} />
        <Button
          variant="outlined"
          onClick={() => change('Mask: wider', (target) => void (target.steepness = Math.max(-12, target.steepness - 1)))}
        >
          Wider
        </Button>
        <Button
          variant="outlined"
          onClick={() => change('Mask: tighter', (target) => void (target.steepness = Math.min(12, target.steepness + 1)))}
        >
          Tighter
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 5, rowGap: 2, alignItems: 'end' }}>
        {number('steepness', 0)}
        {number('feather', 0)}
        {number('strength', 100)}
        <FormControlLabel
          control={
            <Switch checked={mask.invert} onChange={(_, invert) => change('Mask: invert', (target) => void (target.invert = invert))} />
          }
          label="Invert"
          slotProps={{ typography: { sx: { ml: 2 } } }}
          sx={{ ml: 0, mb: 1 }}
        />
        <Choice
          label="Tones from"
          value={mask.tonesFrom}
          options={[
            ['photo', 'The photo'],
            ['beneath', 'All beneath'],
          ]}
          onChange={(value) => change('Mask: tones from', (target) => void (target.tonesFrom = value === 'photo' ? 'photo' : 'beneath'))}
        />
        <Choice
          label="Channel"
          value={mask.channel}
          options={toneChannels.map((channel) => [channel, channelLabels[channel]])}
          onChange={(value) => {
            const channel = toneChannels.find((candidate) => candidate === value)
            if (channel) change('Mask: channel', (target) => void (target.channel = channel))
          }}
        />
      </Box>
    </Box>
  )
}

interface ChoiceProps {
  readonly label: string
  readonly value: string
  readonly options: readonly (readonly [string, string])[]
  onChange(value: string): void
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ mb: '2px' }}>{label}</Box>
      <Select fullWidth value={value} onChange={(event) => onChange(event.target.value)} SelectDisplayProps={{ 'aria-label': label }}>
        {options.map(([option, text]) => (
          <MenuItem key={option} value={option}>
            {text}
          </MenuItem>
        ))}
      </Select>
    </Box>
  )
}
