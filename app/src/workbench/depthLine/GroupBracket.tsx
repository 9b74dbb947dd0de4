import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import type { Group } from '@welkinar/core'
import type { ReactNode } from 'react'
import { ActionMenu, type Action } from '../../common/ActionMenu'
import { changeOwner, select, useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { canTakeMasks, duplicateGroup, removeGroup, takeMasksIn, ungroup } from '../actions/groups'
import { keepGroupAsRecipe } from '../actions/recipes'

/** What stands beside the name in its line, and about how wide a letter is, px; a long name is cut. */
const BESIDE_NAME = 116
const LETTER = 7
const WIDEST = 270

/** A bracket over the cards of a group, with its name and amount. */
export function GroupBracket({ group, children }: { readonly group: Group; readonly children: ReactNode }) {
  const selected = useScene((state) => state.selectedId === group.id && state.panel === 'steps')
  const amount = group.on ? `${Math.round(group.mix.amount)} %` : 'off'
  const colour = selected ? ink.accent : ink.ink
  return (
    <Box
      role="group"
      aria-label={`Group ${group.name}`}
      sx={{
        position: 'relative',
        display: 'flex',
        gap: 2,
        px: 2,
        minWidth: Math.min(WIDEST, BESIDE_NAME + LETTER * group.name.length),
        opacity: group.on ? 1 : 0.6,
      }}
    >
      <Box
        aria-hidden
        sx={{
          position: 'absolute',
          left: 0,
          right: 0,
          top: 0,
          height: 52,
          border: `${selected ? 2 : 1}px solid ${colour}`,
          borderBottom: 0,
          pointerEvents: 'none',
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          left: 46,
          top: -20,
          maxWidth: 'calc(100% - 50px)',
          display: 'flex',
          alignItems: 'center',
          bgcolor: ink.paper,
          px: '5px',
          zIndex: 1,
        }}
      >
        <ButtonBase
          aria-pressed={selected}
          aria-label={`Group ${group.name} ${amount}`}
          onClick={() => select(group.id)}
          sx={{ minHeight: 20, minWidth: 0, color: colour, fontWeight: weight.strong, whiteSpace: 'nowrap' }}
        >
          <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
            {group.name}
          </Box>{' '}
          <Box component="span" sx={{ color: ink.secondary, fontWeight: weight.plain, ml: '5px' }}>
            {amount}
          </Box>
        </ButtonBase>
        <ActionMenu
          label={`More about the group ${group.name}`}
          actions={() => [
            {
              label: group.on ? 'Switch off' : 'Switch on',
              run: () => changeOwner(group.id, 'Switch group', (one) => void (one.on = !one.on)),
            },
            { label: 'Duplicate', run: () => duplicateGroup(group.id) },
            ...groupMasks(group.id),
            { label: 'Make a recipe of it', run: () => keepGroupAsRecipe(group) },
            { label: 'Ungroup', run: () => ungroup(group.id) },
            { label: 'Remove with its effects', run: () => removeGroup(group.id) },
          ]}
        />
      </Box>
      {children}
    </Box>
  )
}

function groupMasks(groupId: string): readonly Action[] {
  const { history, change } = useScene.getState()
  if (!history || !canTakeMasks(history.scene, groupId)) return []
  const newId = (): string => crypto.randomUUID()
  return [
    {
      label: 'Give its masks to its effects',
      run: () => void change('Masks to the effects', (scene) => takeMasksIn(scene, groupId, newId)),
    },
  ]
}
