import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { NumberControl } from '../common/NumberControl'
import { chooseMachine, chosenMachine, machineLimits, usualMachine } from '../engine/machine'

/** Chooses threads and memory. */
export default function MachineDialog({ onClose }: { onClose(): void }) {
  const [machine, setMachine] = useState(chosenMachine)
  const usual = usualMachine()
  const take = () => {
    chooseMachine(machine)
    // Threads start with the page. On the Shelf nothing is open that could be lost.
    window.location.reload()
  }
  return (
    <Dialog open onClose={onClose} slotProps={{ paper: { 'aria-label': 'This machine' } }}>
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
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" onClick={take}>
          Use from now on
        </Button>
      </DialogActions>
    </Dialog>
  )
}
