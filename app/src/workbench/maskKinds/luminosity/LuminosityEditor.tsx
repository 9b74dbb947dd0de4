import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useQuery } from '@tanstack/react-query'
import {
  limitsOf,
  listLimit,
  luminosityMaskSchema,
  maskContext,
  maskCurve,
  nearestNumber,
  toneChannels,
  tonesOf,
  type LuminosityMask,
  type ToneChannel,
  type ToneCurve,
  type ToneHandles,
} from '@welkinar/core'
import { useState } from 'react'
import { Choice } from '../../../common/Choice'
import { changeMask } from '../../../scene/sceneStore'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumber } from '../../controls/MaskNumbers'
import { ink } from '../../../theme'
import { CurveEditor } from '../../toneChart/CurveEditor'
import { QuickChoices } from './QuickChoices'
import { ToneCurveEditor } from './ToneCurveEditor'
import { TonesFrom } from '../../controls/TonesFrom'
import { usePool, useSource } from '../../../scene/openSceneContext'
import { TwoColumns } from '../../../common/TwoColumns'

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

const steepness = limitsOf(luminosityMaskSchema.shape.steepness)
const curveLabels: Record<ToneCurve, string> = { darks: 'Shadows', mids: 'Midtones', brights: 'Highlights', range: 'Range' }
const curves: readonly ToneCurve[] = ['darks', 'mids', 'brights', 'range']

const mostPoints = listLimit(luminosityMaskSchema.shape.free)?.most ?? 0

const FREE = 'free'
/** Tones at which a free curve takes over what the curve before it was. */
const FREE_FROM = [0, 0.25, 0.5, 0.75, 1]

function openness(mask: LuminosityMask, tone: number): number {
  return Number(Math.min(1, Math.max(0, maskCurve({ ...mask, invert: false }, tone))).toFixed(3))
}

/** Handles that come closest to a quick choice, from which a range starts. */
const handlesOf: Record<ToneCurve, ToneHandles | undefined> = {
  brights: [0, 1, 1, 1],
  darks: [0, 0, 0, 1],
  mids: [0, 0.5, 0.5, 1],
  range: undefined,
}

/** A luminosity mask: its curve over the histogram of what it reads, quick choices, and its numbers. */
export function LuminosityEditor({ list, mask }: MaskEditorProps<LuminosityMask>) {
  const pool = usePool()
  const source = useSource()
  const [choosing, setChoosing] = useState(false)
  const tones = tonesOf(mask, maskContext(source, list.owner))
  const histogram = useQuery({
    queryKey: ['histogram', tones.key, source.photo.id, mask.channel],
    queryFn: ({ signal }) => pool.toneHistogram(tones, source.photo, mask.channel, signal),
    staleTime: Infinity,
  })
  const change = (label: string, edit: (mask: LuminosityMask) => void, gesture?: string) => changeMask(list, mask, label, edit, gesture)
  const setHandles = (handles: ToneHandles, gesture?: string) =>
    change('Mask: handles', (target) => Object.assign(target, { curve: 'range', handles: [...handles] }), gesture)
  const chooseCurve = (curve: ToneCurve) =>
    change(`Mask: ${curveLabels[curve]}`, (target) => {
      const handles = handlesOf[curve]
      target.curve = curve
      target.free = null
      if (handles) target.handles = [...handles]
    })
  const drawFreely = () =>
    change('Mask: a free curve', (target) => void (target.free ??= FREE_FROM.map((x) => ({ x, y: openness(target, x) }))))
  const setPoints = (points: NonNullable<LuminosityMask['free']>, gesture?: string) =>
    change('Mask: curve', (target) => void (target.free = points), gesture)
  const steeper = (by: number) =>
    change(by > 0 ? 'Mask: tighter' : 'Mask: wider', (target) => void (target.steepness = nearestNumber(target.steepness + by, steepness)))
  return (
    <>
      {mask.free ? (
        <CurveEditor
          label="Curve of the mask"
          level="openness"
          points={mask.free}
          most={mostPoints}
          curve={(tone) => maskCurve(mask, tone)}
          histogram={histogram.data}
          onPoints={setPoints}
        />
      ) : (
        <ToneCurveEditor mask={mask} histogram={histogram.data} onHandles={setHandles} />
      )}
      <ToggleButtonGroup
        exclusive
        fullWidth
        size="small"
        value={mask.free ? FREE : mask.curve}
        aria-label="Curve"
        onChange={(_, next: ToneCurve | typeof FREE | null) => next && (next === FREE ? drawFreely() : chooseCurve(next))}
        sx={{ '& > button': { px: 0, flex: '1 1 auto', width: 'auto' } }}
      >
        {curves.map((curve) => (
          <ToggleButton key={curve} value={curve}>
            {curveLabels[curve]}
          </ToggleButton>
        ))}
        <ToggleButton value={FREE}>Free</ToggleButton>
      </ToggleButtonGroup>
      <Button variant="outlined" aria-expanded={choosing} onClick={() => setChoosing(!choosing)}>
        Try them in pictures
      </Button>
      {choosing && <QuickChoices list={list} mask={mask} />}
      {mask.free && <Box sx={{ color: ink.secondary }}>Press the chart for a point, drag it; a double press takes it out.</Box>}
      <Box sx={{ display: mask.free ? 'none' : 'flex', gap: 1, alignItems: 'end' }}>
        <Box sx={{ flex: 1 }}>
          <MaskNumber list={list} mask={mask} name="steepness" />
        </Box>
        <Button variant="outlined" onClick={() => steeper(-1)}>
          Wider
        </Button>
        <Button variant="outlined" onClick={() => steeper(1)}>
          Tighter
        </Button>
      </Box>
      <TwoColumns gap={3}>
        <TonesFrom list={list} mask={mask} />
        <Choice
          label="Channel"
          value={mask.channel}
          options={toneChannels.map((channel) => [channel, channelLabels[channel]])}
          onChange={(value) => change('Mask: channel', (target) => void (target.channel = value as ToneChannel))}
        />
      </TwoColumns>
    </>
  )
}
