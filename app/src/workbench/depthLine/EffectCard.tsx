import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import Box from '@mui/material/Box'
import { definitionOf, nameOfEffect, type Effect, type GraphNode, type PictureSource } from '@welkinar/core'
import { memo, useEffect, useRef, type KeyboardEvent } from 'react'
import { ActionMenu, type Action } from '../../common/ActionMenu'
import { changeEffect, select as selectOwner, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { keepAsRecipe } from '../actions/recipes'
import { copyLook, pasteLook } from '../actions/copyLook'
import { hasSameLook, LookPicture } from '../pictures/LookPicture'
import { reflect } from '../actions/reflect'
import { duplicate } from '../actions/duplicate'
import { canGiveMasks, giveMasksIn, groupEffect, joinGroup } from '../actions/groups'
import { stepEffect } from '../actions/moveEffect'
import { removeEffect } from '../actions/removeEffect'

interface EffectCardProps {
  /** What the effect alone contributes. */
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  readonly effect: Effect
  readonly width: number
}

const LINE_AT = 52

/** One effect on the depth line: what it alone contributes, on black, standing on the line; its name beneath. */
export const EffectCard = memo(function EffectCard({ node, photo, effect, width }: EffectCardProps) {
  const selected = useScene((state) => state.selectedId === effect.id && state.panel === 'steps')
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: effect.id })
  const card = useRef<HTMLElement>(null)
  useEffect(() => {
    if (selected) card.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [selected])
  const select = () => selectOwner(effect.id)
  const height = Math.round(width * 0.48)
  const { label, shownPart } = definitionOf(effect.kind)
  const amount = effect.on ? `${Math.round(effect.mix.amount)} %` : 'off'
  return (
    <Box
      ref={(element: HTMLElement | null) => {
        setNodeRef(element)
        card.current = element
      }}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      // As wide as the picture, or as the name beneath it.
      sx={{
        position: 'relative',
        minWidth: width,
        width: 'min-content',
        flex: 'none',
        opacity: isDragging ? 0.6 : 1,
        zIndex: isDragging ? 1 : 'auto',
      }}
    >
      <Box
        {...attributes}
        {...listeners}
        role="button"
        aria-roledescription="effect; Enter selects it, Space picks it up to move it with the arrow keys"
        aria-pressed={selected}
        aria-label={`${label}, ${nameOfEffect(effect)}, ${amount}`}
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
        <LookPicture node={node} photo={photo} width={width} height={height} part={shownPart} label={`${label} alone, on black`} />
      </Box>
      <Box sx={{ position: 'relative', top: LINE_AT + 1, display: 'flex', alignItems: 'center', gap: '5px' }}>
        {/* Where there is no room for both, the amount falls into the second line, which is not seen. */}
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            whiteSpace: 'nowrap',
            overflow: 'hidden',
            display: 'flex',
            flexWrap: 'wrap',
            columnGap: '4px',
            height: '1.5em',
            lineHeight: 1.5,
          }}
        >
          <Box component="b" sx={{ wordSpacing: '0.15em', maxWidth: 120, overflow: 'hidden', textOverflow: 'ellipsis' }}>
            {nameOfEffect(effect)}
          </Box>
          <Box component="span" sx={{ color: ink.secondary }}>
            {amount}
          </Box>
        </Box>
        <ActionMenu label={`More about ${label}`} actions={() => effectActions(effect)} />
      </Box>
    </Box>
  )
}, hasSameLook)

function effectActions(effect: Effect): readonly Action[] {
  const { change, history } = useScene.getState()
  if (!history) return []
  const { scene } = history
  const { id } = effect
  const index = scene.effects.findIndex((other) => other.id === id)
  const beneath = scene.effects[index - 1]
  const groups = scene.groups.filter((group) => group.id !== effect.group)
  return [
    { label: effect.on ? 'Switch off' : 'Switch on', run: () => changeEffect(id, 'Switch effect', (one) => void (one.on = !one.on)) },
    { label: 'Move farther', run: () => change('Move effect', (scene) => stepEffect(scene, id, -1)) },
    { label: 'Move nearer', run: () => change('Move effect', (scene) => stepEffect(scene, id, 1)) },
    { label: 'Duplicate', run: () => duplicate(effect) },
    ...(definitionOf(effect.kind).madeFromEffect ? [] : [{ label: 'Reflect in the water', run: () => reflect(effect, scene) }]),
    { label: 'Copy look', run: () => copyLook(effect) },
    { label: 'Make a recipe of it', run: () => keepAsRecipe({ name: nameOfEffect(effect), effects: [effect.id] }) },
    { label: 'Paste look', run: () => pasteLook(effect) },
    ...(effect.group === null ? [{ label: 'Group', run: () => groupEffect(effect, false) }] : []),
    ...(effect.group === null && beneath && beneath.group === null && beneath.place === effect.place
      ? [{ label: `Group with ${nameOfEffect(beneath)}`, run: () => groupEffect(effect, true) }]
      : []),
    ...groups.map((group) => ({ label: `Into ${group.name}`, run: () => joinGroup(id, group.id) })),
    ...(canGiveMasks(scene, id)
      ? [{ label: 'Give its masks to the group', run: () => change('Masks to the group', (draft) => giveMasksIn(draft, id)) }]
      : []),
    ...(effect.group === null ? [] : [{ label: 'Out of the group', run: () => joinGroup(id, null) }]),
    { label: 'Remove', run: () => removeEffect(id) },
  ]
}
