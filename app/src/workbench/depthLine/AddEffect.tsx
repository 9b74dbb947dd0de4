import { useSortable } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { Plus } from '@phosphor-icons/react/dist/csr/Plus'
import type { DepthPlace } from '@welkinar/core'
import { memo } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { placeLabels } from './places'

/** The plus of one place of the depth line: opens the panel of what can be added there. */
export const AddEffect = memo(function AddEffect({ place }: { readonly place: DepthPlace }) {
  const adding = useScene((state) => state.adding)
  const { setNodeRef } = useSortable({ id: place, disabled: { draggable: true } })
  const label = `Add an effect: ${placeLabels[place]}`
  return (
    <Box ref={setNodeRef} sx={{ pt: '14px' }}>
      <Tooltip title={label}>
        <IconButton
          aria-label={label}
          aria-expanded={adding === place}
          onClick={() => useScene.getState().set({ adding: adding === place ? undefined : place })}
          sx={{
            width: 32,
            height: 32,
            border: `1px ${adding === place ? 'solid' : 'dashed'} ${adding === place ? ink.accent : ink.secondary}`,
            color: ink.ink,
            '&:hover': { bgcolor: ink.raised },
          }}
        >
          <Plus size={15} />
        </IconButton>
      </Tooltip>
    </Box>
  )
})
