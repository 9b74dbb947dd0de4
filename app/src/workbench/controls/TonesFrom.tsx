import Box from '@mui/material/Box'
import Divider from '@mui/material/Divider'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { findOwner, isEffect, type ColourMask, type LuminosityMask, type MaskListRef, type SimilarMask } from '@welkinar/core'
import { changeMask } from '../../scene/sceneStore'
import { pinAndRead } from '../actions/pinState'
import { useSource } from '../../scene/openSceneContext'

type ReadingMask = LuminosityMask | ColourMask | SimilarMask

interface TonesFromProps {
  readonly list: MaskListRef
  readonly mask: ReadingMask
}

const PIN_BENEATH = 'pin beneath'
const PIN_ALL = 'pin all'
const PINNED = 'pinned '

/** What a mask reads: the photo, all beneath, this effect, a pinned state; a new state can be pinned right here. */
export function TonesFrom({ list, mask }: TonesFromProps) {
  const source = useSource()
  const owner = findOwner(source, list.owner)
  const pinned = source.pinned ?? []
  const known = pinned.some(({ id }) => id === mask.pinned)
  const value = mask.tonesFrom === 'pinned' ? `${PINNED}${known ? mask.pinned : ''}` : mask.tonesFrom
  const take = (next: string) => {
    if (next === PIN_BENEATH || next === PIN_ALL) return pinAndRead(list, mask, next === PIN_ALL ? 'all' : 'beneath')
    changeMask(list, mask, 'Mask: tones from', (target) => {
      const isPinned = next.startsWith(PINNED)
      target.tonesFrom = isPinned ? 'pinned' : (next as ReadingMask['tonesFrom'])
      target.pinned = isPinned ? next.slice(PINNED.length) : null
    })
  }
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ mb: '2px' }}>Tones from</Box>
      <Select fullWidth value={value} onChange={(event) => take(event.target.value)} SelectDisplayProps={{ 'aria-label': 'Tones from' }}>
        <MenuItem value="photo">The photo</MenuItem>
        {/* What is shared is the same wherever it is read. */}
        {owner && <MenuItem value="beneath">All beneath</MenuItem>}
        {owner && <MenuItem value="effect">{isEffect(owner) ? 'This effect' : 'This group'}</MenuItem>}
        {pinned.map(({ id, name }) => (
          <MenuItem key={id} value={`${PINNED}${id}`}>
            {name}
          </MenuItem>
        ))}
        {mask.tonesFrom === 'pinned' && !known && (
          <MenuItem value={PINNED} disabled>
            A pinned state that is gone
          </MenuItem>
        )}
        <Divider />
        {owner && <MenuItem value={PIN_BENEATH}>Pin what lies beneath now</MenuItem>}
        <MenuItem value={PIN_ALL}>Pin the whole picture now</MenuItem>
      </Select>
    </Box>
  )
}
