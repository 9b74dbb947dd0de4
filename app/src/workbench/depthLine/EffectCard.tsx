import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { DotsThree } from '@phosphor-icons/react/dist/csr/DotsThree'
import { definitionOf, sceneGraph, type Effect, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { LookPicture } from '../LookPicture'
import { stepEffect } from './moveEffect'

interface EffectCardProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect
  readonly width: number
}

const LINE_AT = 92

/** One effect on the depth line: what it alone contributes, on black, standing on the line; its name beneath. */
export function EffectCard({ pool, source, effect, width }: EffectCardProps) {
  const selected = useScene((state) => state.selectedId === effect.id)
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: effect.id })
  const card = useRef<HTMLElement>(null)
  useEffect(() => {
    if (selected) card.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [selected])
  const select = () => useScene.getState().set({ selectedId: effect.id })
  const height = Math.round(width * 0.6)
  const node = sceneGraph(source, { kind: 'alone', effectId: effect.id })
  const { label } = definitionOf(effect.kind)
  const amount = effect.on ? `${Math.round(effect.mix.amount)} %` : 'off'
  return (
    <Box
      ref={(element: HTMLElement | null) => {
        setNodeRef(element)
        card.current = element
      }}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{ position: 'relative', width, flex: 'none', opacity: isDragging ? 0.6 : 1, zIndex: isDragging ? 1 : 'auto' }}
    >
      <Box
        {...attributes}
        {...listeners}
        role="button"
        aria-roledescription="effect; Enter selects it, Space picks it up to move it with the arrow keys"
        aria-pressed={selected}
        aria-label={`${label}, ${effect.name}, ${amount}`}
        onClick={select}
        onKeyDown={(event: KeyboardEvent<HTMLElement>) => (event.key === 'Enter' ? select() : listeners?.['onKeyDown']?.(event))}
        sx={{
          position: 'absolute',
          top: LINE_AT - height,
          height,
          cursor: 'pointer',
          outline: selected ? `2px solid ${ink.accent}` : 'none',
          outlineOffset: 2,
          borderRadius: '2px 2px 0 0',
          overflow: 'hidden',
          opacity: effect.on ? 1 : 0.35,
          '&:focus-visible': { outline: `3px solid ${ink.accent}` },
        }}
      >
        <LookPicture
          pool={pool}
          node={node}
          photo={source.photo}
          width={width}
          height={height}
          part={0.4}
          label={`${label} alone, on black`}
        />
      </Box>
      <Box sx={{ position: 'absolute', top: LINE_AT + 5, width, display: 'flex', alignItems: 'center', gap: '5px' }}>
        <Box sx={{ flex: 1, minWidth: 0, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
          <b>{label}</b>{' '}
          <Box component="span" sx={{ color: ink.secondary }}>
            {amount}
          </Box>
        </Box>
        <EffectMenu effect={effect} label={label} />
      </Box>
    </Box>
  )
}

function EffectMenu({ effect, label }: { readonly effect: Effect; readonly label: string }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const { change } = useScene.getState()
  const { id } = effect
  const entries = [
    { label: effect.on ? 'Switch off' : 'Switch on', run: () => changeEffect(id, 'Switch effect', (one) => void (one.on = !one.on)) },
    { label: 'Move farther', run: () => change('Move effect', (scene) => stepEffect(scene, id, -1)) },
    { label: 'Move nearer', run: () => change('Move effect', (scene) => stepEffect(scene, id, 1)) },
    { label: 'Duplicate', run: () => duplicate(effect) },
    { label: 'Remove', run: () => removeEffect(id) },
  ]
  return (
    <>
      <IconButton
        size="small"
        aria-label={`More about ${label}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ p: '2px', color: ink.ink }}
      >
        <DotsThree size={18} weight="bold" />
      </IconButton>
      <Menu open={anchor !== undefined} anchorEl={anchor ?? null} onClose={() => setAnchor(undefined)}>
        {entries.map((entry) => (
          <MenuItem
            key={entry.label}
            onClick={() => {
              setAnchor(undefined)
              entry.run()
            }}
          >
            {entry.label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}

/** A copy right in front of the effect, with a seed of its own, so that the two do not show the same drops. */
function duplicate(effect: Effect): void {
  const copy = structuredClone(effect)
  copy.id = crypto.randomUUID()
  const pattern = copy.controls.pattern as { seed?: number }
  if (pattern.seed !== undefined) pattern.seed = (pattern.seed * 7 + 1231) % 10000
  useScene.getState().change('Duplicate effect', (scene) => {
    scene.effects.splice(scene.effects.findIndex(({ id }) => id === effect.id) + 1, 0, copy)
  })
  useScene.getState().set({ selectedId: copy.id })
}

/** Removes an effect and selects the one beneath it. */
export function removeEffect(id: string): void {
  const { history, change, set } = useScene.getState()
  const index = history?.scene.effects.findIndex((effect) => effect.id === id) ?? -1
  change('Remove effect', (scene) => void scene.effects.splice(index, 1))
  const left = useScene.getState().history?.scene.effects ?? []
  set({ selectedId: (left[index - 1] ?? left[index])?.id })
}
