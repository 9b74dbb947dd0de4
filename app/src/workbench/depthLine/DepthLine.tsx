import { horizontalListSortingStrategy } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { CaretUp } from '@phosphor-icons/react/dist/csr/CaretUp'
import { definitionOf, depthPlaces, nameOfEffect, sceneGraph, type DepthPlace, type Effect } from '@welkinar/core'
import { memo } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { DragOrder } from '../controls/DragOrder'
import { AddEffect } from './AddEffect'
import { EffectCard } from './EffectCard'
import { GroupBracket } from './GroupBracket'
import { moveEffect } from '../actions/moveEffect'
import { cardWidths, placeLabels } from './places'
import { useSource } from '../../scene/openSceneContext'

interface DepthLineProps {
  /** Whether it makes room for a panel in a narrow window. */
  readonly folded: boolean
}

/** The ordered strip of effects, from far to near, standing on one line. */
export const DepthLine = memo(function DepthLine({ folded }: DepthLineProps) {
  const source = useSource()
  const { effects } = source
  const open = useScene((state) => state.lineOpen)
  const inPlace = (place: DepthPlace) => effects.filter((effect) => effect.place === place)
  const ids = depthPlaces.flatMap((place) => [...inPlace(place).map(({ id }) => id), place])
  const nameOf = (id: string) => {
    const effect = effects.find((one) => one.id === id)
    return effect ? nameOfEffect(effect) : placeLabels[id as DepthPlace]
  }
  const onMove = (id: string, over: string) => useScene.getState().change('Move effect', (scene) => moveEffect(scene, id, over))
  if (!open || folded) return <FoldedLine effects={effects} inPlaceOfPanel={folded} />
  return (
    <Box
      component="section"
      aria-label="Depth line"
      sx={{
        flex: 'none',
        height: 98,
        display: 'flex',
        overflowX: 'auto',
        overflowY: 'hidden',
        borderTop: `1px solid ${ink.rule}`,
        background: `linear-gradient(${ink.ink}, ${ink.ink}) 0 72px / 100% 1px no-repeat local, ${ink.paper}`,
      }}
    >
      <DragOrder ids={ids} strategy={horizontalListSortingStrategy} nameOf={nameOf} onMove={onMove}>
        {depthPlaces.map((place, index) => (
          <Box
            key={place}
            sx={{ flex: '1 0 auto', minWidth: 60, px: 3, position: 'relative', borderLeft: index ? `1px solid ${ink.rule}` : 0 }}
          >
            <Box component="h2" sx={{ m: 0, pt: '3px', fontSize: 12, lineHeight: '17px', fontWeight: weight.plain, color: ink.secondary }}>
              {placeLabels[place]}
            </Box>
            <Box sx={{ display: 'flex', gap: 2, height: 78 }}>
              {runsOf(inPlace(place)).map(({ groupId, members }) => {
                const cards = members.map((effect) => (
                  <EffectCard
                    key={effect.id}
                    node={sceneGraph(source, { kind: 'alone', effectId: effect.id })}
                    photo={source.photo}
                    effect={effect}
                    width={cardWidths[place]}
                  />
                ))
                const group = source.groups?.find(({ id }) => id === groupId)
                return group ? (
                  <GroupBracket key={group.id} group={group}>
                    {cards}
                  </GroupBracket>
                ) : (
                  cards
                )
              })}
              <AddEffect place={place} />
            </Box>
          </Box>
        ))}
      </DragOrder>
    </Box>
  )
})

/** The line folded away: what stands on it in words, and the way to have it back. */
function FoldedLine({ effects, inPlaceOfPanel }: { readonly effects: readonly Effect[]; readonly inPlaceOfPanel: boolean }) {
  const names = effects.map(({ kind }) => definitionOf(kind).label).join(' · ')
  return (
    <ButtonBase
      onClick={() => useScene.getState().set({ lineOpen: true, ...(inPlaceOfPanel && { panelOpen: false, adding: undefined }) })}
      sx={{ flex: 'none', height: 24, px: 3, gap: 2, justifyContent: 'start', borderTop: `1px solid ${ink.rule}`, bgcolor: ink.paper }}
    >
      <CaretUp size={13} />
      <span>Depth line</span>
      <Box component="span" sx={{ color: ink.secondary, overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' }}>
        {names || 'nothing on it yet'}
      </Box>
    </ButtonBase>
  )
}

/** Effects in a row that belong to one group, or stand alone. */
function runsOf(effects: readonly Effect[]): { groupId: string | null; members: Effect[] }[] {
  const runs: { groupId: string | null; members: Effect[] }[] = []
  for (const effect of effects) {
    const last = runs.at(-1)
    if (last && last.groupId !== null && last.groupId === effect.group) last.members.push(effect)
    else runs.push({ groupId: effect.group, members: [effect] })
  }
  return runs
}
