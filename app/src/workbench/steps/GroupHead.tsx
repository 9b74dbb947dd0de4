import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import OutlinedInput from '@mui/material/OutlinedInput'
import { insideOfGroup, nameOfEffect, type Group } from '@welkinar/core'
import { HiddenHeading } from '../../common/HiddenHeading'
import { useNameField } from '../../common/useNameField'
import { changeOwner, select } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { ungroup } from '../actions/groups'
import { useSource } from '../../scene/openSceneContext'

/** Name of a group, its members, and how to take it apart. */
export function GroupHead({ group }: { readonly group: Group }) {
  const source = useSource()
  const field = useNameField(group.name, (name) => changeOwner(group.id, 'Rename group', (one) => void (one.name = name)))
  return (
    <Box sx={{ mb: 3 }}>
      <HiddenHeading level="h2">Group</HiddenHeading>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 2 }}>
        <OutlinedInput
          {...field}
          inputProps={{ 'aria-label': 'Name of the group', maxLength: 80 }}
          sx={{ flex: 1, fontSize: 17, fontWeight: weight.strong }}
        />
        <Button variant="outlined" onClick={() => ungroup(group.id)}>
          Ungroup
        </Button>
      </Box>
      <Box sx={{ color: ink.secondary, mb: 1 }}>One mask and one amount for</Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {insideOfGroup(source, group.id).map((effect) => (
          <Button key={effect.id} variant="outlined" onClick={() => select(effect.id)}>
            {nameOfEffect(effect)}
          </Button>
        ))}
      </Box>
    </Box>
  )
}
