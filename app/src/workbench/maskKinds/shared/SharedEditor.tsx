import Box from '@mui/material/Box'
import { sharedMaskOf, type SharedMaskReference } from '@welkinar/core'
import { NameInput } from '../../../common/NameInput'
import { useSource } from '../../../scene/openSceneContext'
import { ink } from '../../../theme'
import { renameShared, usersOf } from '../../actions/sharedMasks'
import type { MaskEditorProps } from '../maskInterface'

/** The name of a shared mask, and what reads it. */
export function SharedEditor({ mask }: MaskEditorProps<SharedMaskReference>) {
  const source = useSource()
  const shared = sharedMaskOf(source, mask.of)
  if (!shared) return null
  const users = usersOf(source, shared.id)
  return (
    <Box>
      <NameInput label="Name of the shared mask" name={shared.name} width={240} onRename={(name) => renameShared(shared.id, name)} />
      <Box sx={{ color: ink.secondary, mt: 1 }}>{users.length === 1 ? 'Nothing else has it yet.' : `Used by ${users.join(', ')}.`}</Box>
    </Box>
  )
}
