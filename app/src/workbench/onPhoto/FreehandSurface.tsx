import Box from '@mui/material/Box'
import type { OutlineCorner } from '@welkinar/core'
import { useRef, useState, type PointerEvent } from 'react'
import { showNotice } from '../../common/notices'
import { useScene } from '../../scene/sceneStore'
import type { ViewPort } from './viewPort'
import { outlineAlong } from './freehand'
import { limited, pathThrough, pointerPlace, toPhoto, type Point } from './geometry'
import { GuideLine } from './Handle'

interface FreehandSurfaceProps {
  readonly port: ViewPort
  /** Whether the tool is kept for the next one. */
  readonly keepsTool?: boolean
  /** Takes what was gone around, of three corners and more. */
  onDrawn(corners: OutlineCorner[]): void
}

/** Css px that the outline may lie off the line of the hand, and between two points of it. */
const TOLERANCE = 1.5
const APART = 2
const MOST_POINTS = 20000

/** Takes the pointer while something is gone around in one stroke; it closes when the pointer is lifted. */
export function FreehandSurface({ port, keepsTool = false, onDrawn }: FreehandSurfaceProps) {
  const [points, setPoints] = useState<readonly Point[]>([])
  const drawing = useRef(false)
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || drawing.current) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    drawing.current = true
    setPoints([limited(toPhoto(port, pointerPlace(event, event.currentTarget)))])
  }
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    if (!drawing.current) return
    const native = event.nativeEvent.getCoalescedEvents?.() ?? []
    const target = event.currentTarget
    const places = (native.length > 0 ? native : [event.nativeEvent]).map((one) => limited(toPhoto(port, pointerPlace(one, target))))
    setPoints((known) => places.reduce((all, place) => withPoint(all, place, APART / port.zoom), known))
  }
  const finish = () => {
    drawing.current = false
    const corners = outlineAlong(points, TOLERANCE / port.zoom)
    setPoints([])
    if (corners.length < 3) return showNotice('Keep it pressed and go around what you want.')
    onDrawn(corners)
    if (!keepsTool) useScene.getState().set({ tool: undefined })
  }
  return (
    <Box
      data-testid="freehand surface"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => drawing.current && finish()}
      onPointerCancel={() => {
        drawing.current = false
        setPoints([])
      }}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
    >
      <svg width={port.width} height={port.height} style={{ display: 'block' }}>
        {points.length > 1 && <GuideLine d={pathThrough(port, points)} />}
      </svg>
    </Box>
  )
}

function withPoint(points: readonly Point[], place: Point, apart: number): readonly Point[] {
  const last = points.at(-1)
  const isNear = last && Math.hypot(place.x - last.x, place.y - last.y) < apart
  return isNear || points.length >= MOST_POINTS ? points : [...points, place]
}
