import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Box from '@mui/material/Box'
import { useState } from 'react'
import { useScene } from '../../scene/sceneStore'
import { KeysOf } from '../../keys/KeysOf'
import type { Command } from '../../keys/commands'

const entries = ['fit', 'one', 'in', 'out', 'surround']

/** How large the photo is shown, in photo pixels per screen pixel, ways to change it, and what lies around it. */
export function ZoomMenu({ commands }: { readonly commands: readonly Command[] }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const zoom = useScene((state) => state.shownZoom) * window.devicePixelRatio
  const percent = `${zoom >= 0.1 ? Math.round(zoom * 100) : (zoom * 100).toFixed(1)} %`
  return (
    <>
      <Button
        variant="outlined"
        aria-label={`Zoom, ${percent}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 58, px: 1, flex: 'none', whiteSpace: 'nowrap' }}
      >
        {percent}
      </Button>
      <Menu open={anchor !== undefined} anchorEl={anchor ?? null} onClose={() => setAnchor(undefined)}>
        {commands
          .filter(({ id }) => entries.includes(id))
          .map((command) => (
            <MenuItem
              key={command.id}
              onClick={() => {
                setAnchor(undefined)
                command.run?.()
              }}
            >
              <Box sx={{ flex: 1, mr: 6 }}>{command.label}</Box>
              <KeysOf id={command.id} />
            </MenuItem>
          ))}
      </Menu>
    </>
  )
}
