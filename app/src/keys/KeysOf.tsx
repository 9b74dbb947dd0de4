import Box from '@mui/material/Box'
import { ink } from '../theme'
import { useStrokeInWords } from './keymap'

/** The key of a command, beside its words. */
export function KeysOf({ id }: { readonly id: string }) {
  return <Box sx={{ color: ink.secondary, whiteSpace: 'nowrap' }}>{useStrokeInWords(id)}</Box>
}
