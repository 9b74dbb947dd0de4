import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import { useLayoutEffect, useRef } from 'react'
import { useMatch } from 'react-router'
import { NARROW } from '../common/useNarrow'
import { ink, PANEL_WIDTH } from '../theme'
import { useOpeningPicture } from './openingPicture'
import { useScene } from './sceneStore'

/** A screen of a scene before it is there: the photo, in the Workbench where it will be, between empty panels. */
export function OpeningScene() {
  const inWorkbench = useMatch('/scene/:id/:screen/*') === null
  const panelOpen = useScene((state) => state.panelOpen) && inWorkbench
  const lineOpen = useScene((state) => state.lineOpen)
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column', bgcolor: ink.paper }}>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
          <Box role="status" sx={{ flex: 'none', height: 48, px: 5, display: 'flex', alignItems: 'center', gap: 4 }}>
            Opening the photo …
            <LinearProgress aria-label="Opening the photo" sx={{ width: 160 }} />
          </Box>
          <Box sx={{ flex: 1, minHeight: 0, position: 'relative', bgcolor: ink.surround }}>
            <OpeningPicture />
          </Box>
        </Box>
        {panelOpen && <Box sx={{ width: PANEL_WIDTH, flex: 'none', borderLeft: `1px solid ${ink.rule}`, [NARROW]: { display: 'none' } }} />}
      </Box>
      {inWorkbench && <Box sx={{ flex: 'none', height: lineOpen ? 98 : 24, borderTop: `1px solid ${ink.rule}` }} />}
    </Box>
  )
}

/** The picture as the browser reads it, where the whole photo will be in the view. */
export function OpeningPicture() {
  const picture = useOpeningPicture((state) => state.picture)
  const canvas = useRef<HTMLCanvasElement>(null)
  useLayoutEffect(() => {
    if (picture) canvas.current?.getContext('2d')?.drawImage(picture, 0, 0)
  }, [picture])
  if (!picture) return null
  return (
    <Box
      component="canvas"
      ref={canvas}
      width={picture.width}
      height={picture.height}
      data-testid="opening"
      sx={{ position: 'absolute', inset: 0, p: '8px', width: '100%', height: '100%', objectFit: 'contain', pointerEvents: 'none' }}
    />
  )
}
