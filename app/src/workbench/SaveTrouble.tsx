import Box from '@mui/material/Box'
import { useSaveState } from '../scene/autosave'
import { ink } from '../theme'

/** Says that the last changes are not stored, and what to do about it. */
export function SaveTrouble() {
  const state = useSaveState((save) => save.state)
  if (state !== 'no room' && state !== 'failed') return null
  const reason = state === 'no room' ? 'There is no room left in this browser’s storage' : 'This browser’s storage does not answer'
  return (
    <Box
      role="alert"
      sx={{ px: 4, py: 2, bgcolor: ink.raised, borderLeft: `4px solid ${ink.accent}`, borderBottom: `1px solid ${ink.rule}` }}
    >
      <b>{reason}: the latest changes are only on this screen.</b> Save the recipe or export the picture, then make room by deleting scenes
      on the Shelf. What is stored already is untouched; the next change tries again.
    </Box>
  )
}
