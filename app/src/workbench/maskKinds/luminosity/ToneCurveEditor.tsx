import Box from '@mui/material/Box'
import { maskCurve, type LuminosityMask, type ToneHandles } from '@welkinar/core'
import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { keysGesture } from '../../../common/keysGesture'
import { chartFrame, ink } from '../../../theme'
import { curvePath, fromScreen, HEIGHT, histogramPath, PAD, toX, WIDTH } from '../../toneChart/toneChart'

interface ToneCurveEditorProps {
  readonly mask: LuminosityMask
  readonly histogram: Uint32Array | undefined
  onHandles(handles: ToneHandles, gesture?: string): void
}

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
    if (svg.current) move(index, fromScreen(svg.current, event).x, `handle ${index} ${gesture.current}`)
  }
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    const by = event.key === 'ArrowLeft' ? -0.01 : event.key === 'ArrowRight' ? 0.01 : 0
    if (by === 0) return
    event.preventDefault()
    move(index, (mask.handles[index] ?? 0) + by * (event.shiftKey ? 10 : 1), keysGesture(`handle ${index}`))
  }
  const spare = mask.curve !== 'range'
  return (
    <Box
      component="svg"
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="group"
      aria-label="Curve of the mask over the histogram"
      sx={{
        ...chartFrame,
        touchAction: 'none',
        overflow: 'visible',
      }}
    >
      {histogram && <path d={histogramPath(histogram)} fill={ink.chart} />}
      <path d={curvePath((tone) => maskCurve(mask, tone))} fill="none" stroke={ink.accent} strokeWidth={1.6} />
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
          fill={ink.white}
          stroke={ink.accent}
          strokeWidth={1.6}
          opacity={spare ? 0.45 : 1}
          onPointerDown={(event: PointerEvent<SVGElement>) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            gesture.current++
          }}
          onPointerMove={(event: PointerEvent<SVGElement>) => onPointerMove(event, index)}
          onKeyDown={(event: KeyboardEvent) => onKeyDown(event, index)}
          sx={{ cursor: 'ew-resize', '&:hover': { fill: ink.accentWash }, '&:focus-visible': { outline: 'none', strokeWidth: 4 } }}
        />
      ))}
    </Box>
  )
}
