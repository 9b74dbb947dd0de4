import Box from '@mui/material/Box'
import type { LuminosityMask, ToneHandles } from '@welkinar/core'
import { maskCurve } from '@welkinar/core'
import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { ink } from '../../../theme'

interface ToneCurveEditorProps {
  readonly mask: LuminosityMask
  readonly histogram: Uint32Array | undefined
  onHandles(handles: ToneHandles, gesture?: string): void
}

const WIDTH = 288
const HEIGHT = 84
const PAD = 9
const handleLabels = ['Start', 'Full from', 'Full to', 'End']

/** The mask's curve over the histogram of the tones it reads, with its four handles. */
export function ToneCurveEditor({ mask, histogram, onHandles }: ToneCurveEditorProps) {
  const svg = useRef<SVGSVGElement>(null)
  const gesture = useRef(0)
  const move = (index: number, tone: number, name?: string) => {
    const handles = [...mask.handles] as [number, number, number, number]
    const least = handles[index - 1] ?? 0
    const most = handles[index + 1] ?? 1
    handles[index] = Number(Math.min(most, Math.max(least, tone)).toFixed(4))
    onHandles(handles, name)
  }
  const onPointerMove = (event: PointerEvent<SVGElement>, index: number) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = svg.current?.getBoundingClientRect()
    if (box) move(index, ((event.clientX - box.left) * (WIDTH / box.width) - PAD) / (WIDTH - 2 * PAD), `handle ${index} ${gesture.current}`)
  }
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    const by = event.key === 'ArrowLeft' ? -0.01 : event.key === 'ArrowRight' ? 0.01 : 0
    if (by === 0) return
    event.preventDefault()
    move(index, (mask.handles[index] ?? 0) + by * (event.shiftKey ? 10 : 1))
  }
  const spare = mask.curve !== 'range'
  return (
    <Box
      component="svg"
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="group"
      aria-label="Curve of the mask over the histogram"
      sx={{ width: '100%', display: 'block', bgcolor: '#fff', border: `1px solid ${ink.rule}`, touchAction: 'none', overflow: 'visible' }}
    >
      {histogram && <path d={histogramPath(histogram)} fill="#b4b7ba" />}
      <path d={curvePath(mask)} fill="none" stroke={ink.accent} strokeWidth={1.6} />
      {mask.handles.map((tone, index) => (
        <Box
          component="circle"
          key={index}
          role="slider"
          tabIndex={0}
          aria-label={`${handleLabels[index]}, tone`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(tone * 100)}
          cx={toX(tone)}
          cy={index === 1 || index === 2 ? PAD : HEIGHT - PAD}
          r={6}
          fill="#fff"
          stroke={ink.accent}
          strokeWidth={1.6}
          opacity={spare ? 0.45 : 1}
          onPointerDown={(event: PointerEvent<SVGElement>) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            gesture.current++
          }}
          onPointerMove={(event: PointerEvent<SVGElement>) => onPointerMove(event, index)}
          onKeyDown={(event: KeyboardEvent) => onKeyDown(event, index)}
          sx={{ cursor: 'ew-resize', '&:hover': { fill: '#f0d8d3' }, '&:focus-visible': { outline: 'none', strokeWidth: 4 } }}
        />
      ))}
    </Box>
  )
}

function toX(tone: number): number {
  return PAD + tone * (WIDTH - 2 * PAD)
}

function toY(level: number): number {
  return HEIGHT - PAD - level * (HEIGHT - 2 * PAD)
}

function curvePath(mask: LuminosityMask): string {
  const points = Array.from({ length: 129 }, (_, i) => `${toX(i / 128).toFixed(1)},${toY(maskCurve(mask, i / 128)).toFixed(1)}`)
  return `M${points.join('L')}`
}

/** Heights by the square root, so that small numbers of bright pixels are seen too. */
function histogramPath(bins: Uint32Array): string {
  const heights = Array.from({ length: 64 }, (_, i) => Math.sqrt(bins.subarray(i * 4, i * 4 + 4).reduce((sum, count) => sum + count, 0)))
  const most = Math.max(1, ...heights)
  const points = heights.map((height, i) => `${toX((i + 0.5) / 64).toFixed(1)},${toY((0.92 * height) / most).toFixed(1)}`)
  return `M${toX(0)},${toY(0)}L${points.join('L')}L${toX(1)},${toY(0)}Z`
}
