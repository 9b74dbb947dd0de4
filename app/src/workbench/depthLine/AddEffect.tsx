import { useSortable } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import Popover from '@mui/material/Popover'
import Tooltip from '@mui/material/Tooltip'
import { Plus } from '@phosphor-icons/react/dist/csr/Plus'
import {
  definitionOf,
  effectDefinitions,
  newEffect,
  sceneGraph,
  type DepthPlace,
  type EffectFamily,
  type EffectKind,
  type PictureSource,
} from '@welkinar/core'
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

const families: readonly (readonly [EffectFamily, string])[] = [
  ['weather', 'Weather'],
  ['light', 'Light'],
  ['own', 'Your own'],
]
/** What is looked for first at each place. */
const usualKinds: Record<DepthPlace, EffectKind> = {
  sky: 'stars',
  far: 'haze',
  middle: 'fog',
  near: 'rain',
  lens: 'lightBloom',
  finish: 'softFocus',
}
// What mirrors another effect is made from that effect.
const offered = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect)

/** The kinds at the left, the starting looks of one of them as pictures. */
function Offers({ pool, source, place, onTaken }: AddEffectProps & { onTaken(): void }) {
  const [kind, setKind] = useState(usualKinds[place])
  const { photo, marks, depth } = source
  const definition = definitionOf(kind)
  const looks = useMemo(() => {
    const scene = { photo, ...(marks ? { marks } : {}), depth: depth ?? null }
    return definitionOf(kind).startingLooks.map(({ name }) => {
      const effect = newEffect(photo, { kind, look: name, place, id: 'offer' })
      return { name, node: sceneGraph({ ...scene, effects: [effect] }, { kind: 'alone', effectId: 'offer' }) }
    })
  }, [photo, marks, depth, place, kind])
  const take = (look: string) => {
    const effect = newEffect(photo, { kind, look, place, id: crypto.randomUUID() })
    if (useScene.getState().change(`Add ${look}`, (scene) => insertEffect(scene, effect))) select(effect.id)
    onTaken()
  }
  return (
    <Box sx={{ display: 'flex', width: 560, height: 'min(590px, 78vh)' }}>
      <Box
        component="nav"
        aria-label="Kinds of effect"
        sx={{ width: 148, flex: 'none', overflowY: 'auto', borderRight: `1px solid ${ink.rule}`, py: 3 }}
      >
        {families.map(([family, title]) => (
          <Box key={family} role="group" aria-label={title} sx={{ mb: 3 }}>
            <Box sx={{ px: 4, pb: 1, color: ink.secondary }}>{title}</Box>
            {offered
              .filter((one) => one.family === family)
              .map((one) => (
                <ButtonBase
                  key={one.kind}
                  aria-pressed={one.kind === kind}
                  onClick={() => setKind(one.kind)}
                  sx={{
                    display: 'block',
                    width: '100%',
                    textAlign: 'left',
                    px: 4,
                    py: '4px',
                    fontWeight: one.kind === kind ? 650 : 400,
                    boxShadow: one.kind === kind ? `inset 3px 0 0 ${ink.accent}` : 'none',
                    '&:hover': { bgcolor: ink.well },
                    '&:focus-visible': { outlineOffset: -2 },
                  }}
                >
                  {one.label}
                </ButtonBase>
              ))}
          </Box>
        ))}
      </Box>
      <Box sx={{ flex: 1, minWidth: 0, overflowY: 'auto', p: 4 }}>
        <Box component="h2" sx={{ m: 0, mb: 3, fontSize: 15, fontWeight: 650 }}>
          {definition.label}
          <Box component="span" sx={{ color: ink.secondary, fontWeight: 400, fontSize: 13, ml: 2 }}>
            {placeLabels[place]}
          </Box>
        </Box>
        <Box role="group" aria-label={`Looks of ${definition.label}`} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3 }}>
          {looks.map(({ name, node }) => (
            <ButtonBase
              key={name}
              onClick={() => take(name)}
              sx={{ display: 'block', textAlign: 'left', '&:hover': { outline: `1px solid ${ink.ink}`, outlineOffset: 2 } }}
            >
              <LookPicture pool={pool} node={node} photo={photo} width={176} height={114} part={definition.shownPart} label="" />
              <Box sx={{ pt: '4px', whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</Box>
            </ButtonBase>
          ))}
        </Box>
      </Box>
    </Box>
  )
}
