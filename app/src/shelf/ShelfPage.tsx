import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import LinearProgress from '@mui/material/LinearProgress'
import Typography from '@mui/material/Typography'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { useDropzone } from 'react-dropzone'
import { Link, useNavigate } from 'react-router'
import { bytesInWords } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { renderPool } from '../engine/engine'
import { PhotoTooLarge } from '../engine/photos'
import { OpeningScene } from '../scene/OpeningScene'
import { showWhileOpening } from '../scene/openingPicture'
import { isKept } from '../storage/database'
import { clearUnusedPictures, unusedPictures } from '../storage/photos'
import { listScenes, removePutAway } from '../storage/scenes'
import { askForPersistence, storageSpace } from '../storage/storageSpace'
import { ink, weight } from '../theme'
import { addPhoto } from '../scene/addPhoto'
import { addDemoScenes } from './demoScenes'
import { SceneCard } from './SceneCard'
import { MachineChoice } from './MachineChoice'
import { SetAside } from './SetAside'

const NOTHING_KEPT =
  'This browser does not let the page keep anything. Photos and scenes stay until the page is closed: export what you want to keep.'

/** It is said once; later it stands at the foot of the Shelf. */
let isSaid = false

/** The screen that lists the scenes kept in this browser. */
export function ShelfPage() {
  const start = useQuery({
    queryKey: ['start'],
    queryFn: async () => {
      await removePutAway(Date.now())
      await addDemoScenes()
      return true
    },
    staleTime: Infinity,
  })
  const scenes = useLiveQuery(listScenes)
  const ids = scenes?.map(({ id }) => id).join()
  const space = useQuery({ queryKey: ['space', ids], queryFn: storageSpace, enabled: isKept })
  const isThere = scenes !== undefined && !start.isPending
  const { adding, offer, setOffer, add } = useAddPhoto()
  const dropzone = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDrop: ([file, ...more], refused) => {
      if (file) add(file)
      if (more.length + refused.length > 0) showNotice('Drop one photo at a time: each becomes a scene of its own.')
    },
  })
  useEffect(() => {
    if (isThere) void makeReady()
  }, [isThere])
  useEffect(() => {
    if (isKept || isSaid) return
    isSaid = true
    showNotice(NOTHING_KEPT)
  }, [])
  useEffect(() => {
    if (start.error) showProblem(start.error, 'Preparing the Shelf')
  }, [start.error])
  return (
    <Box {...dropzone.getRootProps({ role: 'main' })} component="main" sx={{ height: '100%', overflowY: 'auto', bgcolor: ink.paper }}>
      <Box sx={{ maxWidth: 1240, mx: 'auto', px: 10, pt: 9, pb: 12 }}>
        <Box component="header" sx={{ display: 'flex', alignItems: 'flex-end', gap: 3, mb: 7 }}>
          <Box sx={{ flex: 1 }}>
            <Typography variant="h1">Welkinar</Typography>
            <Typography sx={{ mt: 1, fontSize: 15, color: ink.secondary }}>
              Open a photograph, put weather and light into it, and keep them out of where they cannot be.
            </Typography>
          </Box>
          <input {...dropzone.getInputProps({ 'aria-label': 'Photo file' })} />
          <Button component={Link} to="/recipes" variant="outlined" size="large" sx={{ minHeight: 40 }}>
            Recipes
          </Button>
          <Button component={Link} to="/batch" variant="outlined" size="large" sx={{ minHeight: 40 }}>
            Many photos
          </Button>
          <Button variant="contained" size="large" onClick={dropzone.open} sx={{ px: 5, minHeight: 40 }}>
            Open a photo
          </Button>
        </Box>
        {!isThere && !start.error && (
          <Box role="status" sx={{ maxWidth: 320 }}>
            <Box sx={{ mb: 2 }}>Setting out the scenes …</Box>
            <LinearProgress aria-label="Setting out the scenes" />
          </Box>
        )}
        <Box
          component="ul"
          aria-label="Scenes"
          sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 7, gridTemplateColumns: 'repeat(auto-fill, minmax(420px, 1fr))' }}
        >
          {isThere && scenes.map((entry) => <SceneCard key={entry.id} entry={entry} />)}
          <DropPlace onOpen={dropzone.open} alone={scenes?.length === 0} />
        </Box>
        <SetAside />
        {space.data && (
          <Typography sx={{ mt: 8, color: ink.secondary }}>
            Photos and scenes stay in this browser: {bytesInWords(space.data.used)} used, {bytesInWords(space.data.available)} available.
          </Typography>
        )}
        {!isKept && <Typography sx={{ mt: 8 }}>{NOTHING_KEPT}</Typography>}
        <UnusedPictures scenes={ids} />
        <MachineChoice />
      </Box>
      {dropzone.isDragActive && <DropVeil />}
      {adding && (
        <Box sx={{ position: 'fixed', inset: 0 }}>
          <OpeningScene />
        </Box>
      )}
      <Dialog open={offer !== undefined} onClose={() => setOffer(undefined)} slotProps={{ paper: { 'aria-label': 'A large photo' } }}>
        <DialogContent>{offer?.message}</DialogContent>
        <DialogActions>
          <Button onClick={() => setOffer(undefined)}>Cancel</Button>
          <Button variant="contained" onClick={() => offer && add(offer.file, true)}>
            Open at reduced size
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  )
}

/** Loads what the next screen needs, while the Shelf is looked at. What fails is tried again when it is needed. */
async function makeReady(): Promise<void> {
  await Promise.allSettled([renderPool(), import('../scene/SceneRoute'), import('../workbench/WorkbenchPage')])
}

/** Pictures that nothing uses take room; they can be removed. */
function UnusedPictures({ scenes }: { readonly scenes: string | undefined }) {
  const unused = useQuery({ queryKey: ['unused pictures', scenes], queryFn: unusedPictures, staleTime: 0 })
  const { ids = [], bytes = 0 } = unused.data ?? {}
  if (ids.length === 0) return null
  const clear = () =>
    clearUnusedPictures().then(
      () => unused.refetch(),
      (error: unknown) => showProblem(error, 'Clearing'),
    )
  return (
    <Box sx={{ mt: 3, display: 'flex', alignItems: 'center', gap: 4, color: ink.secondary }}>
      {ids.length === 1 ? 'One picture is' : `${ids.length} pictures are`} used by no scene: {bytesInWords(bytes)}.
      <Button variant="outlined" onClick={() => void clear()}>
        Clear
      </Button>
    </Box>
  )
}

interface Offer {
  readonly file: File
  readonly message: string
}

/** Opening a photo, with the offer to reduce one that is too large. */
function useAddPhoto() {
  const navigate = useNavigate()
  const [offer, setOffer] = useState<Offer>()
  const { mutate, isPending } = useMutation({
    mutationFn: ({ file, reduce }: { file: File; reduce: boolean }) => {
      showWhileOpening(file, file.name)
      return addPhoto(file, reduce)
    },
    onSuccess: async ({ id, notices }) => {
      void askForPersistence()
      await navigate(`/scene/${id}`)
      if (notices.length > 0) showNotice(notices.join(' '))
    },
    onError: (error, { file }) => {
      showWhileOpening(undefined)
      if (error instanceof PhotoTooLarge) setOffer({ file, message: error.message })
      else showProblem(error, `Opening “${file.name}”`)
    },
  })
  const add = (file: File, reduce = false) => {
    setOffer(undefined)
    mutate({ file, reduce })
  }
  return { adding: isPending, offer, setOffer, add }
}

function DropPlace({ onOpen, alone }: { onOpen(): void; readonly alone: boolean }) {
  return (
    <Box component="li">
      <Box
        onClick={onOpen}
        sx={{
          aspectRatio: '3 / 2',
          border: `1px dashed ${ink.secondary}`,
          display: 'grid',
          placeItems: 'center',
          textAlign: 'center',
          cursor: 'pointer',
          color: ink.secondary,
          p: 6,
          '&:hover': { bgcolor: ink.well },
        }}
      >
        <Box>
          <Box sx={{ fontSize: 15, color: ink.ink, mb: 1 }}>
            {alone ? 'Drop a photo here to begin' : 'Drop a photo anywhere on this page'}
          </Box>
          JPEG, PNG, WebP, AVIF, HEIC, TIFF or a camera’s raw file
        </Box>
      </Box>
    </Box>
  )
}

function DropVeil() {
  return (
    <Box
      sx={{
        position: 'fixed',
        inset: 12,
        border: `3px solid ${ink.accent}`,
        bgcolor: 'rgba(233,232,229,0.86)',
        display: 'grid',
        placeItems: 'center',
        fontSize: 17,
        fontWeight: weight.strong,
        pointerEvents: 'none',
      }}
    >
      Let go to open the photo
    </Box>
  )
}
