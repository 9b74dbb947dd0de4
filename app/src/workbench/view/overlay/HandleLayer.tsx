import Box from '@mui/material/Box'
import { ink } from '../../../theme'
import type { ViewPort } from '../../onPhoto/viewPort'

/** Where the handles on the photo lie: only they take the pointer. */
export function HandleLayer({ port, children }: { readonly port: ViewPort; readonly children: React.ReactNode }) {
  return (
    <Box
      component="svg"
      role="group"
      aria-label="On the photo"
      width={port.width}
      height={port.height}
      sx={{
        position: 'absolute',
        inset: 0,
        pointerEvents: 'none',
        touchAction: 'none',
        '& .handle': { pointerEvents: 'auto', cursor: 'move', outline: 'none' },
        '& .handle:focus-visible > :nth-of-type(1)': { stroke: ink.accent, strokeWidth: 3 },
      }}
    >
      {children}
    </Box>
  )
}
