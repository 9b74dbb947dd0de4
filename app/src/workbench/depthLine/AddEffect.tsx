import { useSortable } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import Popover from '@mui/material/Popover'
import Tooltip from '@mui/material/Tooltip'
import { Plus } from '@phosphor-icons/react/dist/csr/Plus'
import { effectDefinitions, newEffect, sceneGraph, type DepthPlace, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useMemo, useState } from 'react'
import { select, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { LookPicture } from '../LookPicture'
import { insertEffect } from './moveEffect'
import { placeLabels } from './places'

interface AddEffectProps {
  readonly pool: RenderPool
  readonly photo: PictureSource['photo']
  readonly place: DepthPlace
}

/** The plus of one place of the depth line: offers what can be added there, each as a picture. */
export function AddEffect({ pool, photo, place }: AddEffectProps) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const { setNodeRef } = useSortable({ id: place, disabled: { draggable: true } })
  const label = `Add an effect: ${placeLabels[place]}`
  return (
    <Box ref={setNodeRef} sx={{ pt: '68px' }}>
      <Tooltip title={label}>
        <IconButton
          aria-label={label}
          onClick={(event) => setAnchor(event.currentTarget)}
          sx={{ width: 36, height: 36, border: `1px dashed ${ink.secondary}`, color: ink.ink, '&:hover': { bgcolor: ink.raised } }}
        >
          <Plus size={15} />
        </IconButton>
      </Tooltip>
      <Popover
        open={anchor !== undefined}
        anchorEl={anchor ?? null}
        onClose={() => setAnchor(undefined)}
        anchorOrigin={{ vertical: 'top', horizontal: 'center' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      >
        <Offers pool={pool} photo={photo} place={place} onTaken={() => setAnchor(undefined)} />
      </Popover>
    </Box>
  )
}

function Offers({ pool, photo, place, onTaken }: AddEffectProps & { onTaken(): void }) {
  const offers = useMemo(
    () =>
      effectDefinitions.flatMap(({ kind, label, startingLooks }) =>
        startingLooks.map((look) => {
          const effect = newEffect(photo, { kind, look: look.name, place, id: 'offer' })
          const node = sceneGraph({ photo, effects: [effect] }, { kind: 'alone', effectId: 'offer' })
          return { kind, label, name: look.name, node }
        }),
      ),
    [photo, place],
  )
  const take = (kind: string, look: string) => {
    const effect = newEffect(photo, { kind, look, place, id: crypto.randomUUID() })
    useScene.getState().change(`Add ${look}`, (scene) => insertEffect(scene, effect))
    select(effect.id)
    onTaken()
  }
  return (
    <Box sx={{ p: 4, width: 372 }}>
      <Box component="h2" sx={{ m: 0, mb: 3, fontSize: 13 }}>
        {placeLabels[place]}: add
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3 }}>
        {offers.map(({ kind, label, name, node }) => (
          <ButtonBase
            key={`${kind} ${name}`}
            onClick={() => take(kind, name)}
            sx={{ display: 'block', textAlign: 'left', border: `1px solid ${ink.rule}`, '&:hover': { borderColor: ink.ink } }}
          >
            <LookPicture pool={pool} node={node} photo={photo} width={164} height={92} part={0.4} label="" />
            <Box sx={{ px: 2, py: '5px' }}>
              {name}{' '}
              <Box component="span" sx={{ color: ink.secondary }}>
                {label}
              </Box>
            </Box>
          </ButtonBase>
        ))}
      </Box>
    </Box>
  )
}
