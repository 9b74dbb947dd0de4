import Box from '@mui/material/Box'
import { hueOf, sceneGraph, type BrushStroke, type Effect, type OutlineCorner } from '@welkinar/core'
import { useEffect, useRef, useState, type PointerEvent } from 'react'
import { showProblem } from '../../../../common/notices'
import { useKeys } from '../../../../keys/listener'
import { usePool, useSource } from '../../../../scene/openSceneContext'
import type { SceneHistory } from '../../../../scene/history'
import { changeMask, maskChange, useScene } from '../../../../scene/sceneStore'
import type { PaintedStroke } from '../../../../scene/viewState'
import { correctHere, correctionOf, isNeutral, type Beginning } from '../../../actions/corrections/correctHere'
import { chooseCorrection, useNextCorrection } from '../../../actions/corrections/lastCorrection'
import {
  draggedShapes,
  middleOfShape,
  movedShape,
  shapeBetween,
  shapeInTheMiddle,
  type DraggedShape,
  type Drawn,
} from '../../../actions/corrections/shapes'
import { BrushSurface } from '../../../maskKinds/brush/BrushSurface'
import { ellipsePath } from '../../../maskKinds/ellipse/EllipseHandles'
import { maskInterfaceOf } from '../../../maskKinds'
import { withinLimits } from '../../../maskKinds/maskInterface'
import { FreehandSurface } from '../../../onPhoto/FreehandSurface'
import { atAngle, limited, pathThrough, pointerPlace, toPhoto, type Point } from '../../../onPhoto/geometry'
import { GuideLine } from '../../../onPhoto/Handle'
import { useSpaceHeld } from '../../../onPhoto/useSpaceHeld'
import type { ViewPort } from '../../../onPhoto/viewPort'
import { HandleLayer } from '../HandleLayer'
import { CorrectBar } from './CorrectBar'
import { DialRing } from './DialRing'

interface CorrectToolProps {
  readonly port: ViewPort
  /** The selected effect. */
  readonly effect: Effect | undefined
  readonly settled: boolean
}

/** Shorter drags make nothing, css px. */
const LEAST = 8
/** Part of the shorter side of what is seen that a key moves a shape by, and what it resizes it by. */
const STEP = 0.01
const FACTOR = 1.1

/** Makes corrections by the hand: a drag across the photo makes the next one; from the ring in its middle it is turned, from its handles reshaped. */
export function CorrectTool({ port, effect, settled }: CorrectToolProps) {
  const source = useSource()
  const { shape } = useNextCorrection()
  const ring = useRef<SVGGElement>(null)
  const correction = correctionOf(effect)
  const make = useMaking()
  const middle: Point = { x: port.centreX, y: port.centreY }
  const seen = { width: port.width / port.zoom, height: port.height / port.zoom }
  const step = STEP * Math.min(seen.width, seen.height)
  const move = (x: number, y: number, factor = 1) => {
    if (!correction) return
    const { list, mask } = correction
    const part = withinLimits(mask.kind, movedShape(mask, { x: x * step, y: y * step }, factor))
    changeMask(list, mask, 'Place of the mask', (target) => void Object.assign(target, part), 'shape keys')
  }
  useKeys(
    [
      { id: 'tool-done', run: () => make(isDragged(shape) ? shapeInTheMiddle(shape, middle, seen) : { kind: 'sky' }, middle) },
      { id: 'shape-left', repeats: true, run: () => move(-1, 0) },
      { id: 'shape-right', repeats: true, run: () => move(1, 0) },
      { id: 'shape-up', repeats: true, run: () => move(0, -1) },
      { id: 'shape-down', repeats: true, run: () => move(0, 1) },
      { id: 'shape-smaller', repeats: true, run: () => move(0, 0, 1 / FACTOR) },
      { id: 'shape-larger', repeats: true, run: () => move(0, 0, FACTOR) },
      { id: 'shape-ring', run: () => ring.current?.focus() },
    ],
    'tool',
  )
  // What was said of the next stroke is forgotten with the tool.
  useEffect(() => () => chooseCorrection({ begins: false }), [])
  const mask = correction?.mask
  const { Handles } = mask ? maskInterfaceOf(mask.kind) : {}
  return (
    <>
      <Surface port={port} settled={settled} onDrawn={make} />
      {correction && mask && (
        <HandleLayer port={port}>
          {Handles && <Handles port={port} list={correction.list} mask={mask} aside />}
          <DialRing ref={ring} port={port} at={middleOfShape(mask, source) ?? middle} effect={correction.effect} />
        </HandleLayer>
      )}
      <CorrectBar correction={correction} />
    </>
  )
}

function isDragged(shape: string): shape is DraggedShape {
  return (draggedShapes as readonly string[]).includes(shape)
}

/** Makes the next correction of what was drawn. One hue begins with the hue that the photo has there. */
function useMaking(): (drawn: Drawn, at: Point) => void {
  const pool = usePool()
  const source = useSource()
  return (drawn, at) => {
    const { kind } = useNextCorrection.getState()
    chooseCorrection({ begins: false })
    const make = (beginning?: Beginning): void => void correctHere(kind, drawn, beginning)
    if (kind !== 'oneHue') return make()
    const { width, height } = source.photo
    const place = [Math.min(width - 1, Math.max(0, Math.round(at.x))), Math.min(height - 1, Math.max(0, Math.round(at.y)))] as const
    const read = pool.colourAt(sceneGraph(source, { kind: 'photo' }), source.photo, ...place)
    read
      .then((colour) => make({ 'pattern.hue': Math.round(hueOf(colour)) }))
      .catch((error: unknown) => showProblem(error, 'Reading the hue'))
  }
}

interface SurfaceProps {
  readonly port: ViewPort
  readonly settled: boolean
  onDrawn(drawn: Drawn, at: Point): void
}

/** What takes the pointer, by the shape that is drawn next. */
function Surface({ port, settled, onDrawn }: SurfaceProps) {
  const { shape, begins } = useNextCorrection()
  const hatched = useScene(({ history, selectedId, maskView }) => {
    if (shape !== 'brush') return false
    const painted = paintedCorrection(history, selectedId)
    return maskView === 'hatch' || !history || begins || !painted || isNeutral(painted.effect, history.scene.photo)
  })
  if (shape === 'brush') {
    const lay = (stroke: BrushStroke): void => layStroke(stroke, onDrawn)
    return <BrushSurface port={port} settled={settled} hatched={hatched} onTry={tryStroke} onStroke={lay} />
  }
  if (shape !== 'outline') return <DragSurface key={shape} port={port} shape={shape} onDrawn={onDrawn} />
  const take = (corners: OutlineCorner[]): void =>
    onDrawn({ kind: 'outline', paths: [{ hole: false, corners }] }, corners[0] ?? { x: port.centreX, y: port.centreY })
  return <FreehandSurface port={port} keepsTool onDrawn={take} />
}

/** The selected correction, if it is a painted one that strokes go on in. */
function paintedCorrection(history: SceneHistory | undefined, selectedId: string | undefined) {
  if (useNextCorrection.getState().begins) return undefined
  const correction = correctionOf(history?.scene.effects.find(({ id }) => id === selectedId))
  return correction?.mask.kind === 'brush' ? { ...correction, mask: correction.mask } : undefined
}

/** Shows the picture with a stroke in the correction that is painted already. */
function tryStroke(painted: PaintedStroke | undefined): void {
  const { history, selectedId, try: tryOut } = useScene.getState()
  const correction = paintedCorrection(history, selectedId)
  if (!painted || !correction) return tryOut(undefined)
  tryOut(
    maskChange(correction.list, correction.mask, ({ strokes }) => void strokes.push(painted.stroke)),
    painted,
  )
}

/** A stroke goes on in the correction that is painted already, else begins one. */
function layStroke(stroke: BrushStroke, onDrawn: SurfaceProps['onDrawn']): void {
  const { history, selectedId } = useScene.getState()
  const correction = paintedCorrection(history, selectedId)
  if (correction) {
    const { list, mask } = correction
    return changeMask(list, mask, stroke.erase ? 'Erase' : 'Paint', ({ strokes }) => void strokes.push(stroke))
  }
  const [x = 0, y = 0] = stroke.points
  if (!stroke.erase) onDrawn({ kind: 'brush', strokes: [stroke] }, { x, y })
}

interface DragSurfaceProps extends Pick<SurfaceProps, 'port' | 'onDrawn'> {
  readonly shape: DraggedShape | 'sky'
}

/** Takes drags between two ends; of the sky a press is enough. */
function DragSurface({ port, shape, onDrawn }: DragSurfaceProps) {
  const [drag, setDrag] = useState<{ readonly from: Point; readonly to: Point; readonly regular: boolean }>()
  const moving = useSpaceHeld()
  const drawnTo = (from: Point, to: Point, regular: boolean): Drawn | undefined =>
    shape === 'sky' ? { kind: 'sky' } : shapeBetween(shape, from, to, { regular, least: LEAST / port.zoom })
  const drawn = drag && drawnTo(drag.from, drag.to, drag.regular)
  const placeOf = (event: PointerEvent<HTMLElement>): Point => limited(toPhoto(port, pointerPlace(event, event.currentTarget)))
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const from = placeOf(event)
    setDrag({ from, to: from, regular: event.shiftKey })
  }
  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    setDrag(undefined)
    if (!drag) return
    // Where it is lifted counts, also if the last move was not drawn any more.
    const to = placeOf(event)
    const made = drawnTo(drag.from, to, event.shiftKey)
    if (made) onDrawn(made, { x: (drag.from.x + to.x) / 2, y: (drag.from.y + to.y) / 2 })
  }
  return (
    <Box
      data-testid="correct surface"
      onPointerDown={onPointerDown}
      onPointerMove={(event) => drag && setDrag({ ...drag, to: placeOf(event), regular: event.shiftKey })}
      onPointerUp={onPointerUp}
      onPointerCancel={() => setDrag(undefined)}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none', pointerEvents: moving ? 'none' : 'auto' }}
    >
      <svg width={port.width} height={port.height} style={{ display: 'block' }}>
        {drawn && <DrawnGuide port={port} drawn={drawn} />}
      </svg>
    </Box>
  )
}

/** The shape as it would be now. */
function DrawnGuide({ port, drawn }: { readonly port: ViewPort; readonly drawn: Drawn }) {
  const long = (port.width + port.height) / port.zoom
  const across = (at: Point, turn: number) => pathThrough(port, [atAngle(at, long, turn), atAngle(at, -long, turn)])
  if (drawn.kind === 'ellipse') {
    const { x = 0, y = 0, radiusX = 0, radiusY = 0 } = drawn
    return <GuideLine d={ellipsePath(port, { x, y }, { radiusX, radiusY, turn: 0 }, 1)} />
  }
  if (drawn.kind === 'line') {
    const { x = 0, y = 0, toX = 0, toY = 0 } = drawn
    const turn = (Math.atan2(y - toY, toX - x) * 180) / Math.PI + 90
    return (
      <>
        <GuideLine d={across({ x, y }, turn)} />
        <GuideLine d={across({ x: toX, y: toY }, turn)} dashed />
      </>
    )
  }
  if (drawn.kind !== 'band') return null
  const { x = 0, y = 0, turn = 0, width = 0, softness = 0 } = drawn
  return [1, -1].map((side) => (
    <g key={side}>
      <GuideLine d={across(atAngle({ x, y }, (side * width) / 2, turn + 90), turn)} />
      <GuideLine d={across(atAngle({ x, y }, side * (width / 2 + softness), turn + 90), turn)} dashed />
    </g>
  ))
}
