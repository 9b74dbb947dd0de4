import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { lazy, Suspense, useState } from 'react'
import { chosenMachine } from '../engine/machine'
import { ink } from '../theme'

// The Shelf is what comes first: it loads nothing that is seldom asked for.
const MachineDialog = lazy(() => import('./MachineDialog'))

/** With how much of this machine pictures are computed; it can be changed. */
export function MachineChoice() {
  const [asked, setAsked] = useState(false)
  const { threads, memory } = chosenMachine()
  return (
    <Box sx={{ mt: 3, display: 'flex', alignItems: 'center', gap: 4, color: ink.secondary }}>
      <span>
        Pictures are computed by {threads === 1 ? 'one thread' : `${threads} threads`}, which may keep {memory} MB of results.
      </span>
      <Button variant="outlined" onClick={() => setAsked(true)}>
        Change
      </Button>
      {asked && (
        <Suspense>
          <MachineDialog onClose={() => setAsked(false)} />
        </Suspense>
      )}
    </Box>
  )
}
