import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { maskDefinitions, type MaskKind, type Owner, type PictureSource } from '@welkinar/core'
import { useState } from 'react'
import { ink } from '../../../theme'
import { addMask } from './maskActions'

const MOST_MASKS = 32

/** The kinds of mask, each with a sentence about it. */
export function AddMask({ source, owner }: { readonly source: PictureSource; readonly owner: Owner }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const take = (kind: MaskKind) => {
    setAnchor(undefined)
    addMask(source, owner, kind)
  }
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        disabled={owner.where.masks.length >= MOST_MASKS}
        sx={{ justifySelf: 'start' }}
      >
        Add a mask
      </Button>
      <Menu open={anchor !== undefined} anchorEl={anchor ?? null} onClose={() => setAnchor(undefined)}>
        {maskDefinitions.map(({ kind, label, hint }) => (
          <MenuItem key={kind} onClick={() => take(kind as MaskKind)} aria-label={label} sx={{ gap: 3 }}>
            <Box sx={{ width: 96, fontWeight: 650 }}>{label}</Box>
            <Box sx={{ color: ink.secondary }}>{hint}</Box>
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
