import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { listLimit, maskDefinitions, maskList, sharedMaskOf, whereSchema, type MaskKind, type MaskListRef } from '@welkinar/core'
import { useState } from 'react'
import { ink, weight } from '../../../theme'
import { addMask, addShared } from '../../actions/maskActions'
import { useSource } from '../../../scene/openSceneContext'

/** The kinds of mask, each with a sentence about it. */
export function AddMask({ list }: { readonly list: MaskListRef }) {
  const source = useSource()
  const most = listLimit(whereSchema.shape.masks)?.most ?? 0
  const [anchor, setAnchor] = useState<HTMLElement>()
  const take = (kind: MaskKind) => {
    setAnchor(undefined)
    addMask(source, list, kind)
  }
  const isShared = sharedMaskOf(source, list.owner) !== undefined
  // A shared mask reads nothing of what it masks, and is not made of others.
  const offered = maskDefinitions.filter(({ kind }) => kind !== 'shared' && (kind !== 'pattern' || !isShared))
  const shared = isShared ? [] : (source.shared ?? [])
  const takeShared = (id: string) => {
    setAnchor(undefined)
    addShared(source, list, id)
  }
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        disabled={(maskList(source, list)?.masks.length ?? 0) >= most}
        sx={{ justifySelf: 'start' }}
      >
        Add a mask
      </Button>
      <Menu open={anchor !== undefined} anchorEl={anchor ?? null} onClose={() => setAnchor(undefined)}>
        {shared.map(({ id, name }) => (
          <MenuItem key={id} onClick={() => takeShared(id)} aria-label={`Shared: ${name}`} sx={{ gap: 3 }}>
            <Box sx={{ width: 96, fontWeight: weight.strong }}>Shared</Box>
            <Box>{name}</Box>
          </MenuItem>
        ))}
        {offered.map(({ kind, label, hint }) => (
          <MenuItem key={kind} onClick={() => take(kind)} aria-label={label} sx={{ gap: 3 }}>
            <Box sx={{ width: 96, fontWeight: weight.strong }}>{label}</Box>
            <Box sx={{ color: ink.secondary }}>{hint}</Box>
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
