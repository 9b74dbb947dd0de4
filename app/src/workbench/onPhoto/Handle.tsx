import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { keysGesture } from '../../common/keysGesture'
import type { ViewPort } from './viewPort'
import { limited, pointerPlace, screenPoint, toPhoto, type Point } from './geometry'
import { ink } from '../../theme'

export interface HandleProps {
  readonly port: ViewPort
  /** Photo px. */
  readonly at: Point
  readonly label: string
  /** `main` is the place itself, `side` changes a size or an angle. */
  readonly look?: 'main' | 'side' | 'curve'
  readonly colour?: string
  /** `gesture` names a drag, whose moves are one step for undo. */
  onMove(to: Point, gesture?: string): void
  onDoubleClick?(): void
  onRemove?(): void
  /** Called when a drag begins and when it ends. */
  onGrip?(held: boolean): void
}

const REACH = 20
let drags = 0

/** A handle on the photo: always as large, moved with mouse, pen, finger or arrow keys. */
export function Handle({ port, at, label, look = 'main', colour = ink.white, onMove, onDoubleClick, onRemove, onGrip }: HandleProps) {
  const grip = useRef<{ readonly offset: Point; readonly gesture: string }>(undefined)
  const { x, y } = screenPoint(port, at)
  const onPointerDown = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const place = pointerPlace(event, frameOf(event.currentTarget))
    grip.current = { offset: { x: place.x - x, y: place.y - y }, gesture: `handle ${drags++}` }
    onGrip?.(true)
  }
  const letGo = () => {
    grip.current = undefined
    onGrip?.(false)
  }
  const onPointerMove = (event: PointerEvent<SVGGElement>) => {
    if (!grip.current || !event.currentTarget.hasPointerCapture(event.pointerId)) return
    const place = pointerPlace(event, frameOf(event.currentTarget))
    const { offset, gesture } = grip.current
    onMove(limited(toPhoto(port, { x: place.x - offset.x, y: place.y - offset.y })), gesture)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (onRemove && (event.key === 'Delete' || event.key === 'Backspace')) {
      event.preventDefault()
      event.stopPropagation()
      return onRemove()
    }
    const by = steps[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    const step = (event.shiftKey ? 10 : 1) / Math.min(1, port.zoom)
    onMove(limited({ x: at.x + by.x * step, y: at.y + by.y * step }), keysGesture(label))
  }
  const size = look === 'main' ? 7 : 5
  return (
    <g
      className="handle"
      role="button"
      tabIndex={0}
      aria-label={`${label}. Arrow keys move it.`}
      transform={`translate(${x} ${y})`}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onDoubleClick={(event) => {
        event.stopPropagation()
        onDoubleClick?.()
      }}
      onKeyDown={onKeyDown}
    >
      <circle r={REACH} fill="transparent" />
      {look === 'side' ? (
        <rect x={-size} y={-size} width={2 * size} height={2 * size} fill={colour} stroke={ink.ink} strokeWidth={1.5} />
      ) : (
        <circle r={size} fill={look === 'curve' ? ink.ink : colour} stroke={look === 'curve' ? ink.white : ink.ink} strokeWidth={1.5} />
      )}
    </g>
  )
}

const steps: Record<string, Point | undefined> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
}

function frameOf(element: SVGGElement): Element {
  return element.ownerSVGElement ?? element
}

/** A line on the photo that is seen on dark and on light. */
export function GuideLine({ d, dashed = false }: { readonly d: string; readonly dashed?: boolean }) {
  return (
    <g fill="none" pointerEvents="none">
      <path d={d} stroke={ink.ink} strokeOpacity={0.55} strokeWidth={3} />
      <path d={d} stroke={ink.white} strokeWidth={1.25} strokeDasharray={dashed ? '5 5' : undefined} />
    </g>
  )
}

/** Words beside a place on the photo. */
export function Caption({ port, at, text }: { readonly port: ViewPort; readonly at: Point; readonly text: string }) {
  const { x, y } = screenPoint(port, at)
  const width = 12 + 6.6 * text.length
  return (
    <g pointerEvents="none" transform={`translate(${x + 14} ${y - 11})`}>
      <rect width={width} height={22} fill={ink.ink} fillOpacity={0.85} rx={2} />
      <text x={6} y={15} fill={ink.white} fontSize={12}>
        {text}
      </text>
    </g>
  )
}
