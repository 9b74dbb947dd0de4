import Box from '@mui/material/Box'
import { guidesAlong, placesAlong, sceneGraph, type BrushMask, type BrushStroke, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect, useLayoutEffect, useRef, type PointerEvent } from 'react'
import { showProblem } from '../../../common/notices'
import { useBrush } from '../../../scene/brush'
import { changeMask, maskChange, useScene } from '../../../scene/sceneStore'
import type { PaintedStroke } from '../../../scene/viewState'
import { hatchPattern } from '../../onPhoto/hatch'
import { pointerPlace, screenPoint, toPhoto, type Point } from '../../onPhoto/geometry'
import { useSpaceHeld } from '../../onPhoto/useSpaceHeld'
import type { ViewPort } from '../../onPhoto/viewPort'
import type { MaskSurfaceProps } from '../maskInterface'
import { StrokePoints } from './strokePoints'
import { usePool, useSource } from '../../../scene/openSceneContext'

/** Takes the pointer while a brush mask is painted. */
export function BrushTool({ port, list, mask, tool, settled }: MaskSurfaceProps<BrushMask>) {
  const maskView = useScene((state) => state.maskView)
  if (tool.kind !== 'paint') return null
  return (
    <BrushSurface
      port={port}
      settled={settled}
      hatched={maskView === 'hatch'}
      onTry={(painted) => {
        const change = painted && maskChange<BrushMask>(list, mask, ({ strokes }) => void strokes.push(painted.stroke))
        useScene.getState().try(change, painted)
      }}
      onStroke={(stroke) => changeMask(list, mask, stroke.erase ? 'Erase' : 'Paint', ({ strokes }) => void strokes.push(stroke))}
    />
  )
}

/** A pen tells how hard it presses; a mouse and a finger press fully. */
function pressureOf(event: globalThis.PointerEvent): number {
  return event.pointerType === 'pen' ? Math.max(0.02, event.pressure) : 1
}

interface BrushSurfaceProps {
  readonly port: ViewPort
  /** Whether the exact picture is on the screen. */
  readonly settled: boolean
  /** Whether the stroke is hatched, since the picture does not show it. */
  readonly hatched: boolean
  /** Shows the picture with the stroke as far as it is drawn. */
  onTry(painted: PaintedStroke | undefined): void
  /** Takes each stroke, in the order in which they were drawn. */
  onStroke(stroke: BrushStroke): void
}

/** The picture follows the pen; a stroke that it does not show is drawn over it. */
export function BrushSurface({ port, settled, hatched, onTry, onStroke }: BrushSurfaceProps) {
  const pool = usePool()
  const source = useSource()
  const canvas = useRef<HTMLCanvasElement>(null)
  const cursor = useRef<HTMLDivElement>(null)
  const points = useRef<StrokePoints>(undefined)
  const stroke = useRef<symbol>(undefined)
  const frame = useRef<number>(undefined)
  const moved = useRef(0)
  const waiting = useRef(false)
  const order = useRef(Promise.resolve())
  const unlaid = useRef(0)
  const moving = useSpaceHeld()
  const size = useBrush((brush) => brush.size)
  const latest = useRef(onTry)
  useLayoutEffect(() => {
    latest.current = onTry
  })
  useEffect(
    () => () => {
      if (frame.current !== undefined) cancelAnimationFrame(frame.current)
      // Put away in the middle of a stroke: nothing of it stays.
      if (points.current) latest.current(undefined)
    },
    [],
  )
  useEffect(() => {
    if (settled && waiting.current && !points.current) {
      waiting.current = false
      clear(canvas.current)
    }
  }, [settled])
  const { zoom, centreX, centreY, width, height } = port
  useEffect(() => clear(canvas.current), [zoom, centreX, centreY, width, height])

  const begin = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || points.current) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    points.current = new StrokePoints(useBrush.getState().size)
    stroke.current = Symbol('stroke')
    go(event)
  }
  const go = (event: PointerEvent<HTMLElement>) => {
    const place = pointerPlace(event, event.currentTarget)
    showCursor(cursor.current, place, size * port.zoom)
    const current = points.current
    if (!current || !event.currentTarget.hasPointerCapture(event.pointerId)) return
    const native = event.nativeEvent
    if (event.shiftKey && current.last) {
      const straight = current.straightTo(toPhoto(port, place), pressureOf(native))
      clear(canvas.current)
      if (hatched) draw(canvas.current, port, straight, 0)
      points.current = straight
    } else {
      // Several moves of the pen can come in one event.
      const before = current.points.length
      const events = native.getCoalescedEvents?.() ?? []
      for (const one of events.length > 0 ? events : [native]) {
        if (current.full) continueStroke()
        points.current?.add(toPhoto(port, pointerPlace(one, event.currentTarget)), pressureOf(one))
      }
      if (hatched) draw(canvas.current, port, points.current, points.current === current ? before : 0)
    }
    noteStroke(event.timeStamp)
    moved.current = event.timeStamp
    frame.current ??= requestAnimationFrame(tryOut)
  }
  /** At most once for each frame of the screen. */
  const tryOut = () => {
    frame.current = undefined
    const drawn = points.current?.stroke(useBrush.getState())
    if (drawn && stroke.current) latest.current({ id: stroke.current, stroke: drawn, at: moved.current })
  }
  const commit = () => {
    const drawn = points.current?.stroke(useBrush.getState())
    points.current = undefined
    if (!drawn) return
    waiting.current = true
    const lay = (guides: BrushStroke['guides']) => {
      onStroke({ ...drawn, guides })
      // What was refused is not shown any longer.
      if (!points.current) onTry(undefined)
    }
    const guides = useBrush.getState().edges ? guidesOf(pool, source, drawn) : undefined
    if (!guides && unlaid.current === 0) return lay([])
    // Strokes are laid in the order in which they were drawn, however long each takes to find its edges.
    unlaid.current++
    // Where that fails it is said when its turn comes.
    guides?.catch(() => undefined)
    order.current = order.current
      .then(async () => lay((await guides) ?? []))
      .catch((error: unknown) => {
        clear(canvas.current)
        if (!points.current) onTry(undefined)
        showProblem(error, 'Reading the edges of the photo')
      })
      .finally(() => unlaid.current--)
  }
  /** A stroke of thousands of points goes on in a new one. */
  const continueStroke = () => {
    const last = points.current?.last
    commit()
    points.current = new StrokePoints(useBrush.getState().size)
    stroke.current = Symbol('stroke')
    if (last) points.current.add(last, last.pressure)
  }
  const cancel = () => {
    points.current = undefined
    onTry(undefined)
    clear(canvas.current)
  }
  const ratio = port.pixelRatio
  return (
    <Box
      data-testid="brush surface"
      onPointerDown={begin}
      onPointerMove={go}
      onPointerUp={commit}
      onPointerCancel={cancel}
      onPointerLeave={() => cursor.current && (cursor.current.style.display = 'none')}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{
        position: 'absolute',
        inset: 0,
        cursor: 'none',
        touchAction: 'none',
        overflow: 'hidden',
        pointerEvents: moving ? 'none' : 'auto',
      }}
    >
      <canvas
        ref={canvas}
        width={Math.round(port.width * ratio)}
        height={Math.round(port.height * ratio)}
        style={{ width: '100%', height: '100%', display: 'block' }}
      />
      <Box
        ref={cursor}
        aria-hidden
        sx={{
          position: 'absolute',
          display: 'none',
          borderRadius: '50%',
          border: '1px solid #fff',
          boxShadow: '0 0 0 1px rgba(31,33,35,.7), inset 0 0 0 1px rgba(31,33,35,.5)',
          pointerEvents: 'none',
        }}
      />
    </Box>
  )
}

/** The colours that a stroke keeps to, read from the photo along it. */
async function guidesOf(pool: RenderPool, source: PictureSource, stroke: BrushStroke): Promise<BrushStroke['guides']> {
  const places = placesAlong(stroke.points, stroke.size)
  const colours = await pool.coloursAt(sceneGraph(source, { kind: 'photo' }), source.photo, places)
  return guidesAlong(places, colours, stroke.tolerance / 100)
}

/** Time from the event to the drawn stroke, in the browser's own list of measures; the benchmark reads it there. */
function noteStroke(start: number): void {
  performance.measure('stroke', { start, end: performance.now() })
}

function showCursor(cursor: HTMLDivElement | null, { x, y }: Point, diameter: number): void {
  if (!cursor) return
  const shown = Math.max(3, diameter)
  Object.assign(cursor.style, {
    display: 'block',
    width: `${shown}px`,
    height: `${shown}px`,
    left: `${x - shown / 2}px`,
    top: `${y - shown / 2}px`,
  })
}

function clear(canvas: HTMLCanvasElement | null): void {
  canvas?.getContext('2d')?.clearRect(0, 0, canvas.width, canvas.height)
}

/** Draws the pieces of a stroke that end at its points from an index on. */
function draw(canvas: HTMLCanvasElement | null, port: ViewPort, stroke: StrokePoints | undefined, from: number): void {
  const pen = canvas?.getContext('2d')
  if (!pen || !stroke) return
  const { points } = stroke
  const { size, pressure } = useBrush.getState()
  const k = port.pixelRatio
  pen.lineCap = 'round'
  pen.strokeStyle = hatchPattern(pen, k)
  for (let i = from; i < points.length; i += 3) {
    const before = Math.max(0, i - 3)
    const [a, b] = [
      screenPoint(port, { x: points[before] ?? 0, y: points[before + 1] ?? 0 }),
      screenPoint(port, { x: points[i] ?? 0, y: points[i + 1] ?? 0 }),
    ]
    const force = pressure === 'size' || pressure === 'both' ? (points[i + 2] ?? 1) : 1
    pen.lineWidth = Math.max(1, size * force * port.zoom * k)
    pen.beginPath()
    pen.moveTo(a.x * k, a.y * k)
    pen.lineTo(b.x * k + 0.01, b.y * k)
    pen.stroke()
  }
}
