import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import { useEffect, type ReactNode } from 'react'
import { useBlocker, useNavigate } from 'react-router'
import { showProblem } from '../common/notices'
import { ink } from '../theme'
import type { OpenScene } from './openScene'
import { saveRecipe } from './saveRecipe'
import type { ReadOnly } from './sceneLife'
import { useScene } from './sceneStore'

/** What every screen of a scene says: that it is not stored, or that it can only be looked at here, and what to do. */
export function SceneNotices({ scene }: { readonly scene: OpenScene }) {
  const life = useScene((store) => store.life)
  if (life.is === 'reading only') return <OnlyRead scene={scene} reason={life.why} />
  if (life.is !== 'trouble') return null
  if (life.why === 'conflict') return <Conflict scene={scene} />
  const reason = life.why === 'no room' ? 'There is no room left in this browser’s storage' : 'This browser’s storage does not answer'
  return (
    <Notice role="alert" action={<Button onClick={saveRecipe}>Save the recipe</Button>}>
      <b>{reason}: the latest changes are only on this screen.</b> They are stored by themselves as soon as there is room: delete scenes on
      the Shelf in another tab. Until then you can go on, export the picture, or save the recipe as a file.
    </Notice>
  )
}

function OnlyRead({ scene, reason }: { readonly scene: OpenScene; readonly reason: ReadOnly }) {
  if (reason === 'newer') {
    return <Notice role="status">This scene was made by a newer Welkinar. You see of it what this one knows, and cannot change it.</Notice>
  }
  if (reason === 'no room') {
    return (
      <Notice role="alert">
        <b>Something in this scene could not be read, and what is stored could not be set aside.</b> Nothing is changed; make room by
        deleting scenes on the Shelf, and open it again.
      </Notice>
    )
  }
  if (reason === 'gone') return <Notice role="alert">This scene was deleted in another tab; what you see is not stored any more.</Notice>
  const take = () => scene.takeOver().catch((error: unknown) => showProblem(error, 'Going on here'))
  return (
    <Notice role="status" action={<Button onClick={() => void take()}>Go on here</Button>}>
      This scene is open in another tab. You see it here as it is saved there, and cannot change it.
    </Notice>
  )
}

function Conflict({ scene }: { readonly scene: OpenScene }) {
  const navigate = useNavigate()
  const keep = () =>
    scene
      .keepAsCopy()
      .then((id) => id && navigate(`/scene/${id}`))
      .catch((error: unknown) => showProblem(error, 'Keeping the scene'))
  return (
    <Notice role="alert" action={<Button onClick={() => void keep()}>Keep mine as a scene of its own</Button>}>
      <b>This scene was changed or deleted in another tab.</b> What you did here since then is only on this screen.
    </Notice>
  )
}

function Notice({
  role,
  action,
  children,
}: {
  readonly role: 'alert' | 'status'
  readonly action?: ReactNode
  readonly children: ReactNode
}) {
  return (
    <Box
      role={role}
      sx={{
        px: 4,
        py: 2,
        flex: 'none',
        display: 'flex',
        gap: 4,
        alignItems: 'center',
        bgcolor: ink.raised,
        borderLeft: `4px solid ${ink.accent}`,
        borderBottom: `1px solid ${ink.rule}`,
        '& .MuiButton-root': { flex: 'none', border: `1px solid ${ink.ink}` },
      }}
    >
      <Box sx={{ flex: 1 }}>{children}</Box>
      {action}
    </Box>
  )
}

/** Saves before a scene is left, and asks where that fails. */
export function LeaveQuestion({ scene }: { readonly scene: OpenScene }) {
  const trouble = useScene(({ life }) => life.is === 'trouble')
  // As it is when the scene is left: a change of a moment ago may not be on the screen yet.
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => !isStored() && sceneOf(currentLocation.pathname) !== sceneOf(nextLocation.pathname),
  )
  const { state: leaving, proceed } = blocker
  useEffect(() => {
    if (leaving !== 'blocked' || trouble) return
    void scene.save().then(() => useScene.getState().life.is !== 'trouble' && proceed?.())
  }, [leaving, trouble, proceed, scene])
  useEffect(() => {
    if (!trouble) return
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault()
    addEventListener('beforeunload', ask)
    return () => removeEventListener('beforeunload', ask)
  }, [trouble])
  return (
    <Dialog
      open={leaving === 'blocked' && trouble}
      onClose={() => blocker.reset?.()}
      slotProps={{ paper: { 'aria-label': 'Leaving the scene' } }}
    >
      <DialogContent>The latest changes of this scene are not stored. If you leave it now, they are lost.</DialogContent>
      <DialogActions>
        <Button onClick={() => blocker.proceed?.()}>Leave all the same</Button>
        <Button variant="contained" onClick={() => blocker.reset?.()}>
          Stay
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function isStored(): boolean {
  const { life } = useScene.getState()
  return life.is !== 'saving' && life.is !== 'trouble'
}

/** The part of an address that names the scene. */
function sceneOf(path: string): string {
  return /^\/scene\/[^/]+/.exec(path)?.[0] ?? path
}
