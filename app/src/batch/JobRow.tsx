import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { memo } from 'react'
import type { RunJob, StoredRun } from '../storage/database'
import { recipeOfRun } from '../storage/runs'
import { ink } from '../theme'

interface JobRowProps {
  readonly job: RunJob
  readonly run: StoredRun
  /** Its recipe, where there are several. */
  readonly recipe: number | undefined
  /** How much of it is computed, while it is made. */
  readonly part: number | undefined
  onLook(job: RunJob): void
}

const words: Readonly<Record<RunJob['state'], string>> = { waiting: 'waits', done: 'made', failed: 'could not be made' }

/** One file of a run. */
export const JobRow = memo(function JobRow({ job, run, recipe, part, onLook }: JobRowProps) {
  const state = part === undefined ? words[job.state] : `${Math.round(100 * part)} %`
  return (
    <Box
      component="li"
      data-state={part === undefined ? job.state : 'making'}
      sx={{
        contentVisibility: 'auto',
        containIntrinsicSize: 'auto 44px',
        px: 4,
        py: 2,
        minHeight: 44,
        '& + &': { borderTop: `1px solid ${ink.rule}` },
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 4, minHeight: 28 }}>
        <Cell>{job.photoName}</Cell>
        {recipe !== undefined && <Cell>{recipeOfRun(run, recipe).name}</Cell>}
        <Cell>{job.name}</Cell>
        <Box sx={{ width: 130, flex: 'none', color: job.state === 'failed' ? ink.accent : ink.secondary }}>{state}</Box>
        <Box sx={{ width: 66, flex: 'none' }}>
          {job.state === 'done' && (
            <Button variant="outlined" size="small" aria-label={`Look at ${job.name}`} onClick={() => onLook(job)}>
              Look
            </Button>
          )}
        </Box>
      </Box>
      {job.words.map((one) => (
        <Box key={one} sx={{ color: job.state === 'failed' ? ink.accent : ink.secondary }}>
          {one}
        </Box>
      ))}
    </Box>
  )
})

function Cell({ children }: { readonly children: string }) {
  return (
    <Box title={children} sx={{ flex: '1 1 0', minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
      {children}
    </Box>
  )
}
