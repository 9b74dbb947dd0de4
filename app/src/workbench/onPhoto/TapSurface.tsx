import Box from '@mui/material/Box'
import { useRef, type PointerEvent } from 'react'
import { showProblem } from '../../common/notices'
import type { ViewPort } from './viewPort'
import { limited, pointerPlace, toPhoto, type Point } from './geometry'

interface TapSurfaceProps {
  readonly port: ViewPort
  /** Takes the place that was tapped, photo px. */
  onTap(at: Point): Promise<void> | void
}

/** Takes taps on the photo for the tool that is held. */
export function TapSurface({ port, onTap }: TapSurfaceProps) {
  const down = useRef<Point>(undefined)
  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const from = down.current
    down.current = undefined
    const place = pointerPlace(event, event.currentTarget)
    if (!from || Math.hypot(place.x - from.x, place.y - from.y) > 8) return
    void Promise.resolve(onTap(limited(toPhoto(port, place)))).catch((error: unknown) => showProblem(error, 'Reading the photo'))
  }
  return (
    <Box
      data-testid="tap surface"
      onPointerDown={(event) => {
        if (event.button !== 0) return
        event.stopPropagation()
        down.current = pointerPlace(event, event.currentTarget)
      }}
      onPointerUp={onPointerUp}
      onPointerCancel={() => (down.current = undefined)}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
    />
  )
}
