import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import LinearProgress from '@mui/material/LinearProgress'
import { useState } from 'react'
import { saveFile } from '../common/files'
import { showProblem } from '../common/notices'
import { NARROW } from '../common/useNarrow'
import type { RunJob } from '../storage/database'
import { removeRun, tryAgain, type Run } from '../storage/runs'
import { ink, weight } from '../theme'
import { mayWrite } from './folder'
import { JobRow } from './JobRow'
import { QuickLook } from './QuickLook'
import { goOn, pause, useRunner } from './runner'
import { zipped } from './zipFiles'

const PANEL = 340

/** A run: how far it is, what was made, and what went wrong. */
export function RunPanel({ run, jobs }: Run) {
  const { making, part, made, took } = useRunner()
  const [looked, look] = useState<RunJob>()
  const [ending, setEnding] = useState(false)
  const [zipping, setZipping] = useState(false)
  const count = (state: RunJob['state']) => jobs.filter((one) => one.state === state).length
  const [done, failed, waiting] = [count('done'), count('failed'), count('waiting')]
  const goes = making !== undefined
  const kept = jobs.filter(({ file }) => file !== undefined)
  const attempt = (work: Promise<unknown>, doing: string) => void work.catch((error: unknown) => showProblem(error, doing))
  const go = async () => {
    if (run.folder && !(await mayWrite(run.folder))) return
    goOn(run.id)
  }
  const again = async () => {
    await tryAgain(run.id)
    await go()
  }
  const save = async () => {
    setZipping(true)
    try {
      const files = kept.flatMap(({ name, file }) => (file ? [{ name, file }] : []))
      const zips = await zipped(files)
      zips.forEach((zip, i) => saveFile(zip, zips.length === 1 ? 'Welkinar photos.zip' : `Welkinar photos ${i + 1}.zip`))
    } finally {
      setZipping(false)
    }
  }
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', [NARROW]: { flexDirection: 'column-reverse', justifyContent: 'flex-end' } }}>
      <Box component="main" sx={{ flex: 1, minWidth: 0, minHeight: 0, overflowY: 'auto', bgcolor: ink.surround, p: 5 }}>
        <Box component="ul" aria-label="Files" sx={{ listStyle: 'none', m: 0, p: 0, bgcolor: ink.paper }}>
          {jobs.map((job) => (
            <JobRow
              key={job.index}
              job={job}
              part={job.index === making ? part : undefined}
              recipe={run.recipes.length > 1 ? job.recipe : undefined}
              run={run}
              onLook={look}
            />
          ))}
        </Box>
      </Box>
      <Box
        component="aside"
        aria-label="How far it is"
        sx={{
          width: PANEL,
          flex: 'none',
          overflowY: 'auto',
          borderLeft: `1px solid ${ink.rule}`,
          p: 5,
          display: 'grid',
          gap: 4,
          alignContent: 'start',
          [NARROW]: { width: '100%' },
        }}
      >
        <Box role="status">
          <Box sx={{ fontSize: 17, fontWeight: weight.strong }}>
            {done} of {jobs.length} made
          </Box>
          <Box sx={{ color: ink.secondary, minHeight: 18 }}>
            {[failed > 0 ? `${failed} could not be made` : '', waiting > 0 ? timeLeft(waiting, made, took, goes) : '']
              .filter(Boolean)
              .join('; ')}
          </Box>
        </Box>
        <LinearProgress
          aria-label="All files"
          variant="determinate"
          value={(100 * (done + failed + (goes ? part : 0))) / Math.max(1, jobs.length)}
        />
        {goes ? (
          <Button variant="contained" onClick={pause}>
            Pause
          </Button>
        ) : (
          waiting > 0 && (
            <Button variant="contained" onClick={() => attempt(go(), 'Going on')}>
              Go on
            </Button>
          )
        )}
        {!goes && failed > 0 && (
          <Button variant="outlined" onClick={() => attempt(again(), 'Trying again')}>
            Try again what could not be made
          </Button>
        )}
        {run.folder ? (
          <Box sx={{ color: ink.secondary }}>What is made lies in the folder “{run.folder.name}”.</Box>
        ) : (
          <Button
            variant={goes || waiting > 0 ? 'outlined' : 'contained'}
            disabled={kept.length === 0 || zipping}
            onClick={() => attempt(save(), 'Saving the zip')}
          >
            {zipping ? 'Putting them together …' : kept.length === 1 ? 'Save one file as a zip' : `Save ${kept.length} files as a zip`}
          </Button>
        )}
        <Button variant="outlined" disabled={goes} onClick={() => setEnding(true)}>
          End the run
        </Button>
      </Box>
      {looked && <QuickLook job={looked} run={run} onClose={() => look(undefined)} />}
      <Dialog open={ending} onClose={() => setEnding(false)} slotProps={{ paper: { 'aria-label': 'End the run' } }}>
        <DialogContent>
          {kept.length > 0 ? `The ${kept.length} files that were made are kept here only, and go with it. ` : ''}
          {waiting > 0 ? `${waiting} files are still to be made.` : ''} The photos themselves stay where they are.
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setEnding(false)}>Cancel</Button>
          <Button
            variant="contained"
            onClick={() => {
              setEnding(false)
              attempt(removeRun(), 'Ending the run')
            }}
          >
            End it
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  )
}

/** How long it takes yet, by what the files before took. */
function timeLeft(waiting: number, made: number, took: number, goes: boolean): string {
  if (!goes) return waiting === 1 ? 'one is still to be made' : `${waiting} are still to be made`
  if (made === 0) return 'the first one is being made'
  const seconds = (waiting * took) / made / 1000
  if (seconds < 90) return `about ${Math.max(1, Math.round(seconds))} s left`
  return seconds < 5400 ? `about ${Math.round(seconds / 60)} min left` : `about ${(seconds / 3600).toFixed(1)} h left`
}
