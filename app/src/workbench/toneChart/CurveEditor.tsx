import Box from '@mui/material/Box'
import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { keysGesture } from '../../common/keysGesture'
import { showNotice } from '../../common/notices'
import { chartFrame, ink } from '../../theme'
import { curvePath, fromScreen, HEIGHT, histogramPath, toX, toY, WIDTH } from './toneChart'

interface CurvePoint {
  readonly x: number
  readonly y: number
}

interface CurveEditorProps {
  /** What it is a curve of, as it is read out. */
  readonly label: string
  /** What is moved up and down. */
  readonly level: string
  readonly points: readonly CurvePoint[]
  readonly most: number
  /** The line that is drawn: a function of 0-1. */
  curve(tone: number): number
  readonly histogram: Uint32Array | undefined
  readonly colour?: string
  onPoints(points: CurvePoint[], gesture?: string): void
}

/** A curve through points over the histogram: a press on the chart puts a point there, which is dragged; a double press or Delete takes it out. */
export function CurveEditor({ label, level, points, most, curve, histogram, colour = ink.accent, onPoints }: CurveEditorProps) {
  const svg = useRef<SVGSVGElement>(null)
  const gesture = useRef(0)
  const move = (index: number, to: CurvePoint, name?: string) =>
    onPoints(
      points.map((point, i) => (i === index ? to : point)),
      name,
    )
  const add = (event: PointerEvent<SVGElement>) => {
    if (!svg.current || event.target !== svg.current) return
    if (points.length >= most) return showNotice(`A curve has ${most} points at most.`)
    onPoints([...points, fromScreen(svg.current, event)])
  }
  const remove = (index: number) => {
    if (points.length <= 2) return showNotice('A curve needs two points.')
    onPoints(points.filter((_, i) => i !== index))
  }
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault()
      event.stopPropagation()
      return remove(index)
    }
    const by = steps[event.key]
    const point = points[index]
    if (!by || !point) return
    event.preventDefault()
    const far = event.shiftKey ? 0.1 : 0.01
    const within = (value: number): number => Number(Math.min(1, Math.max(0, value)).toFixed(3))
    move(index, { x: within(point.x + far * by[0]), y: within(point.y + far * by[1]) }, keysGesture(`point ${index}`))
  }
  return (
    <Box
      component="svg"
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="group"
      aria-label={`${label} over the histogram. Press to add a point.`}
      onPointerDown={add}
      sx={{
        ...chartFrame,
        touchAction: 'none',
        overflow: 'visible',
        cursor: 'crosshair',
      }}
    >
      <g pointerEvents="none">
        {histogram && <path d={histogramPath(histogram)} fill={ink.chart} />}
        <path d={curvePath(curve)} fill="none" stroke={colour} strokeWidth={1.6} />
      </g>
      {points.map(({ x, y }, index) => (
        <Box
          component="circle"
          key={index}
          role="slider"
          tabIndex={0}
          aria-label={`Point ${index + 1}: tone ${Math.round(100 * x)} %, ${level}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(100 * y)}
          cx={toX(x)}
          cy={toY(y)}
          r={6}
          fill={ink.white}
          stroke={colour}
          strokeWidth={1.6}
          onPointerDown={(event: PointerEvent<SVGElement>) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            gesture.current++
          }}
          onPointerMove={(event: PointerEvent<SVGElement>) => {
            if (!svg.current || !event.currentTarget.hasPointerCapture(event.pointerId)) return
            move(index, fromScreen(svg.current, event), `point ${index} ${gesture.current}`)
          }}
          onDoubleClick={() => remove(index)}
          onKeyDown={(event: KeyboardEvent) => onKeyDown(event, index)}
          sx={{ cursor: 'move', '&:hover': { fill: ink.accentWash }, '&:focus-visible': { outline: 'none', strokeWidth: 4 } }}
        />
      ))}
    </Box>
  )
}

const steps: Record<string, readonly [number, number] | undefined> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
