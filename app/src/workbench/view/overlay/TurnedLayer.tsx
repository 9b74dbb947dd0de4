import Box from '@mui/material/Box'
import { middleOf, type Frame } from '@welkinar/core'
import type { ReactNode } from 'react'
import { toScreen, widened, type ViewPort } from '../../onPhoto/viewPort'

interface TurnedLayerProps {
  readonly frame: Frame
  readonly port: ViewPort
  /** @param port the view as the layer sees it: it is larger than the screen, so that it covers it when it is turned */
  children(port: ViewPort): ReactNode
}

/** What lies on the photo, turned as the photo is: within it places are those of the photo as it came. */
export function TurnedLayer({ frame, port, children }: TurnedLayerProps) {
  const { turn } = frame
  const margin = turn === 0 ? 0 : Math.ceil(Math.hypot(port.width, port.height) * Math.sin((Math.abs(turn) * Math.PI) / 180))
  const middle = middleOf(frame)
  const { x, y } = toScreen(port, middle.x, middle.y)
  return (
    <Box
      data-turn={turn}
      sx={{
        position: 'absolute',
        inset: -margin + 'px',
        pointerEvents: 'none',
        ':where(&) > *': { pointerEvents: 'auto' },
        ...(turn !== 0 && { transform: `rotate(${-turn}deg)`, transformOrigin: `${x + margin}px ${y + margin}px` }),
      }}
    >
      {children(widened(port, margin))}
    </Box>
  )
}
