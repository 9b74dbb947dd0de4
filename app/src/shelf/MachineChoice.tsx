import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { NumberControl } from '../common/NumberControl'
import { chooseMachine, chosenMachine, machineLimits, usualMachine } from '../engine/machine'
import { ink } from '../theme'

/** With how much of this machine pictures are computed; it can be changed. */
export function MachineChoice() {
  const [asked, setAsked] = useState(false)
  const [machine, setMachine] = useState(chosenMachine)
  const now = chosenMachine()
  const usual = usualMachine()
  const close = () => {
    setAsked(false)
    setMachine(now)
  }
  const take = () => {
    chooseMachine(machine)
    // Threads start with the page. On the Shelf nothing is open that could be lost.
    window.location.reload()
  }
  return (
    <Box sx={{ mt: 3, display: 'flex', alignItems: 'center', gap: 4, color: ink.secondary }}>
      <span>
        Pictures are computed by {now.threads === 1 ? 'one thread' : `${now.threads} threads`}, which may keep {now.memory} MB of results.
      </span>
      <Button variant="outlined" onClick={() => setAsked(true)}>
        Change
      </Button>
      <Dialog open={asked} onClose={close} slotProps={{ paper: { 'aria-label': 'This machine' } }}>
        <DialogContent sx={{ width: 380, display: 'grid', gap: 4 }}>
          <Typography variant="h2">This machine</Typography>
          <NumberControl
            control={{
              label: 'Threads',
              unit: '',
              usual: [1, machineLimits.threads.most],
              step: 1,
              hint: 'As many as the machine has cores are the fastest.',
            }}
            limits={machineLimits.threads}
            value={machine.threads}
            start={usual.threads}
            onChange={(threads) => setMachine({ ...machine, threads })}
          />
          <NumberControl
            control={{ label: 'Memory for results', unit: 'MB', usual: [200, 2000], step: 1, hint: 'With less, more is computed again.' }}
            limits={machineLimits.memory}
            value={machine.memory}
            start={usual.memory}
            onChange={(memory) => setMachine({ ...machine, memory })}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>Cancel</Button>
          <Button variant="contained" onClick={take}>
            Use from now on
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  )
}
