import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { currentRun } from '../storage/runs'
import { ink, weight } from '../theme'
import { NewRunPanel } from './NewRunPanel'
import { RunPanel } from './RunPanel'

/** The screen where recipes are laid on many photos. */
export function BatchPage() {
  const current = useLiveQuery(currentRun)
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column', bgcolor: ink.paper }}>
      <Box
        component="header"
        sx={{ flex: 'none', minHeight: 48, px: 4, display: 'flex', alignItems: 'center', gap: 3, borderBottom: `1px solid ${ink.rule}` }}
      >
        <Button component={Link} to="/" variant="text">
          ← Shelf
        </Button>
        <Box component="h1" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong }}>
          Many photos
        </Box>
        <Box sx={{ color: ink.secondary }}>Recipes laid on a whole folder, file by file</Box>
      </Box>
      {current === null && <NewRunPanel />}
      {current && <RunPanel {...current} />}
    </Box>
  )
}
