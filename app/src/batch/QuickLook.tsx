import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { showProblem } from '../common/notices'
import type { RunJob, StoredRun } from '../storage/database'
import { photoOfRun } from '../storage/runs'
import { ink } from '../theme'
import { readFromFolder } from './folder'
import { openAsScene } from './openAsScene'

interface QuickLookProps {
  readonly job: RunJob
  readonly run: StoredRun
  onClose(): void
}

/** A photo and what was made of it, side by side. */
export function QuickLook({ job, run, onClose }: QuickLookProps) {
  const navigate = useNavigate()
  const { data } = useQuery({
    queryKey: ['quick look', job.runId, job.index],
    queryFn: async () => {
      const before = (await photoOfRun(job.runId, job.photo))?.file
      const after = job.file ?? (run.folder && (await readFromFolder(run.folder, job.name).catch(() => undefined)))
      return { before, after }
    },
    gcTime: 0,
  })
  const open = async () => {
    const id = await openAsScene(run, job)
    await navigate(`/scene/${id}`)
  }
  return (
    <Dialog open onClose={onClose} maxWidth={false} slotProps={{ paper: { 'aria-label': `${job.name}: before and after` } }}>
      <DialogContent sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 540px))', gap: 3 }}>
        <Shown file={data?.before} words={`Before: ${job.photoName}`} />
        <Shown file={data?.after} words={`After: ${job.name}`} />
      </DialogContent>
      <DialogActions>
        <Button onClick={() => void open().catch((error: unknown) => showProblem(error, 'Opening the scene'))}>Open as a scene</Button>
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** A file as the browser shows it. */
function Shown({ file, words }: { readonly file: Blob | undefined; readonly words: string }) {
  const image = useRef<HTMLImageElement>(null)
  const [failed, setFailed] = useState(false)
  useEffect(() => {
    if (!file || !image.current) return
    const made = URL.createObjectURL(file)
    image.current.src = made
    return () => URL.revokeObjectURL(made)
  }, [file])
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Box sx={{ aspectRatio: '3 / 2', bgcolor: ink.surround, display: 'grid', placeItems: 'center' }}>
        {failed && <Box sx={{ p: 4, bgcolor: ink.paper }}>The browser itself cannot show this format.</Box>}
        <Box
          component="img"
          ref={image}
          alt={words}
          hidden={failed || !file}
          onError={() => setFailed(true)}
          sx={{ width: '100%', height: '100%', objectFit: 'contain' }}
        />
      </Box>
      <Box component="figcaption" sx={{ mt: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {words}
      </Box>
    </Box>
  )
}
