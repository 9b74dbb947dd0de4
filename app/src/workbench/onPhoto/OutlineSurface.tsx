import Box from '@mui/material/Box'
import type { OutlineCorner } from '@welkinar/core'
import { useRef, useState, type PointerEvent } from 'react'
import { showNotice } from '../../common/notices'
import { useKeys } from '../../keys/listener'
import { useScene } from '../../scene/sceneStore'
import type { ViewPort } from './viewPort'
import { limited, pointerPlace, screenPoint, toPhoto } from './geometry'
import { GuideLine } from './Handle'
import { outlinePath, plainCorner } from './outlinePath'
import { ink } from '../../theme'

interface OutlineSurfaceProps {
  readonly port: ViewPort
  /** Whether a line is drawn, of two corners and more, and not what a line goes around. */
  readonly open?: boolean
  /** Takes what was drawn, of three corners and more. */
  onDrawn(corners: OutlineCorner[]): void
}

const CLOSE_WITHIN = 14

/** Takes the pointer while an outline is drawn: a tap makes a corner, a drag a curve, the first corner or Enter closes it. */
export function OutlineSurface({ port, open = false, onDrawn }: OutlineSurfaceProps) {
  const least = open ? 2 : 3
  const [corners, setCorners] = useState<readonly OutlineCorner[]>([])
  const dragging = useRef(false)
  const close = () => {
    if (corners.length >= least) onDrawn([...corners])
    useScene.getState().set({ tool: undefined })
  }
  const done = () => {
    if (corners.length >= least || corners.length === 0) return close()
    showNotice(open ? 'A line needs two corners: tap one more.' : 'An outline needs three corners: tap one more.')
  }
  const back = () => {
    if (corners.length === 0) useScene.getState().set({ tool: undefined })
    setCorners(corners.slice(0, -1))
  }
  useKeys(
    [
      { id: 'tool-done', run: done },
      { id: 'tool-back', run: back },
    ],
    'tool',
  )
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    const place = pointerPlace(event, event.currentTarget)
    const first = corners[0] && screenPoint(port, corners[0])
    if (!open && first && corners.length > 2 && Math.hypot(first.x - place.x, first.y - place.y) < CLOSE_WITHIN) return close()
    event.currentTarget.setPointerCapture(event.pointerId)
    dragging.current = true
    setCorners([...corners, plainCorner(limited(toPhoto(port, place)))])
  }
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const last = corners.at(-1)
    if (!dragging.current || !last) return
    const to = toPhoto(port, pointerPlace(event, event.currentTarget))
    const { x, y } = limited({ x: to.x - last.x, y: to.y - last.y })
    if (Math.hypot(x, y) * port.zoom < 4) return
    setCorners([...corners.slice(0, -1), { ...last, inX: -x, inY: -y, outX: x, outY: y }])
  }
  return (
    <Box
      data-testid="outline surface"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => (dragging.current = false)}
      onPointerCancel={() => {
        // A second finger moves the photo; the corner of the first was not meant.
        if (dragging.current) setCorners(corners.slice(0, -1))
        dragging.current = false
      }}
      onDoubleClick={(event) => {
        event.stopPropagation()
        // The second tap has put a corner on the last one.
        if (open && corners.length > least) close()
      }}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
    >
      <svg width={port.width} height={port.height} style={{ display: 'block' }}>
        <GuideLine d={outlinePath(port, corners, false)} />
        {corners.map((corner, index) => {
          const { x, y } = screenPoint(port, corner)
          return <circle key={index} cx={x} cy={y} r={index === 0 ? 7 : 4} fill={ink.white} stroke={ink.ink} strokeWidth={1.5} />
        })}
      </svg>
    </Box>
  )
}
