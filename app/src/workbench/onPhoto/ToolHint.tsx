import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'

/** What a press on the photo does now, and how to leave it. */
export function ToolHint({ text, children }: { readonly text: string; readonly children?: ReactNode }) {
  return (
    <Box
      sx={{
        position: 'absolute',
        left: 12,
        bottom: 12,
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        p: 1,
        pl: 3,
        bgcolor: ink.paper,
        border: `1px solid ${ink.rule}`,
        borderRadius: '3px',
      }}
    >
      <Box>{text}</Box>
      {children}
      <Button variant="text" onClick={() => useScene.getState().set({ tool: undefined })}>
        Done
      </Button>
    </Box>
  )
}
