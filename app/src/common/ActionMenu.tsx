import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { DotsThree } from '@phosphor-icons/react/dist/csr/DotsThree'
import { useState } from 'react'
import { ink } from '../theme'

export interface Action {
  readonly label: string
  readonly enabled?: boolean
  run(): void
}

/** Three dots that open a list of what can be done with something. */
export function ActionMenu({ label, actions }: { readonly label: string; readonly actions: () => readonly Action[] }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  return (
    <>
      <IconButton
        size="small"
        aria-label={label}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ p: '3px', color: ink.ink, flex: 'none' }}
      >
        <DotsThree size={18} weight="bold" />
      </IconButton>
      {anchor && (
        <Menu open anchorEl={anchor} onClose={() => setAnchor(undefined)}>
          {actions().map((action) => (
            <MenuItem
              key={action.label}
              disabled={action.enabled === false}
              onClick={() => {
                setAnchor(undefined)
                action.run()
              }}
            >
              {action.label}
            </MenuItem>
          ))}
        </Menu>
      )}
    </>
  )
}
