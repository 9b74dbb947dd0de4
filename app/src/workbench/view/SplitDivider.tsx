import Box from '@mui/material/Box'
import type { Rect } from '@welkinar/core'
import type { KeyboardEvent, PointerEvent } from 'react'
import { useScene } from '../../scene/sceneStore'
import { toScreen, type ViewPort } from '../onPhoto/viewPort'
import { ink } from '../../theme'

interface SplitDividerProps {
  readonly port: ViewPort
  readonly frame: Rect
}

/** The line between photo and picture; dragged, or moved with the arrow keys. */
export function SplitDivider({ port, frame }: SplitDividerProps) {
  const splitAt = useScene((state) => state.splitAt)
  const moveTo = (part: number) => useScene.getState().set({ splitAt: Math.min(1, Math.max(0, part)) })
  const { x } = toScreen(port, frame.x + splitAt * frame.width, 0)
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const left = event.currentTarget.parentElement?.getBoundingClientRect().left ?? 0
    moveTo(((event.clientX - left - port.width / 2) / port.zoom + port.centreX - frame.x) / frame.width)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowLeft' ? -0.01 : event.key === 'ArrowRight' ? 0.01 : 0
    if (by === 0) return
    event.preventDefault()
    event.stopPropagation()
    moveTo(splitAt + by * (event.shiftKey ? 10 : 1))
  }
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label="Divider between before and after"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(splitAt * 100)}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={onPointerMove}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        left: Math.min(port.width - 1, Math.max(0, x)) - 20,
        top: 0,
        bottom: 0,
        width: 40,
        cursor: 'col-resize',
        touchAction: 'none',
        '&::before': { content: '""', position: 'absolute', left: 19, top: 0, bottom: 0, width: 2, bgcolor: ink.white },
        '&::after': {
          content: '"before   after"',
          whiteSpace: 'pre',
          position: 'absolute',
          left: 20,
          bottom: 12,
          transform: 'translateX(-50%)',
          bgcolor: ink.ink,
          color: ink.white,
          fontSize: 12,
          px: 2,
          py: '3px',
          borderRadius: '2px',
        },
      }}
    />
  )
}
