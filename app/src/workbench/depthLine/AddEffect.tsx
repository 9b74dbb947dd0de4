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
  readonly source: PictureSource
  readonly place: DepthPlace
}

/** The plus of one place of the depth line: offers what can be added there, each as a picture. */
export function AddEffect({ pool, source, place }: AddEffectProps) {
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
        <Offers pool={pool} source={source} place={place} onTaken={() => setAnchor(undefined)} />
      </Popover>
    </Box>
  )
}

function Offers({ pool, source, place, onTaken }: AddEffectProps & { onTaken(): void }) {
  const { photo, marks, depth } = source
  const offers = useMemo(() => {
    const scene = { photo, ...(marks ? { marks } : {}), depth: depth ?? null }
    // What mirrors another effect is made from that effect.
    return effectDefinitions
      .filter(({ mirrors }) => !mirrors)
      .map(({ kind, label, shownPart, startingLooks }) => {
        const looks = startingLooks.map(({ name }) => {
          const effect = newEffect(photo, { kind, look: name, place, id: 'offer' })
          return { name, node: sceneGraph({ ...scene, effects: [effect] }, { kind: 'alone', effectId: 'offer' }) }
        })
        return { kind, label, shownPart, looks }
      })
  }, [photo, marks, depth, place])
  const take = (kind: string, look: string) => {
    const effect = newEffect(photo, { kind, look, place, id: crypto.randomUUID() })
    useScene.getState().change(`Add ${look}`, (scene) => insertEffect(scene, effect))
    select(effect.id)
    onTaken()
  }
  return (
    <Box sx={{ p: 4, width: 560, maxHeight: 'min(620px, 78vh)', overflowY: 'auto' }}>
      <Box component="h2" sx={{ m: 0, mb: 2, fontSize: 13 }}>
        {placeLabels[place]}: add
      </Box>
      {offers.map(({ kind, label, shownPart, looks }) => (
        <Box key={kind} role="group" aria-label={label} sx={{ borderTop: `1px solid ${ink.rule}`, pt: 2, pb: 3 }}>
          <Box component="h3" sx={{ m: 0, mb: 2, fontSize: 13, fontWeight: 650 }}>
            {label}
          </Box>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 2 }}>
            {looks.map(({ name, node }) => (
              <ButtonBase
                key={name}
                onClick={() => take(kind, name)}
                sx={{ display: 'block', textAlign: 'left', '&:hover': { outline: `1px solid ${ink.ink}`, outlineOffset: 2 } }}
              >
                <LookPicture pool={pool} node={node} photo={photo} width={124} height={78} part={shownPart} label="" />
                <Box sx={{ pt: '4px', whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</Box>
              </ButtonBase>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  )
}
