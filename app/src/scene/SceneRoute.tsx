import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import { useEffect, useState } from 'react'
import { Outlet, useOutletContext, useParams } from 'react-router'
import { ErrorPage } from '../common/ErrorPage'
import { ink } from '../theme'
import { OpenScene } from './openScene'
import { LeaveQuestion, SceneNotices } from './SceneNotices'
import { useScene } from './sceneStore'

/** Opens the scene of the address for all screens that show it: Workbench, Field studio and Export. */
export function SceneRoute() {
  const { id = '' } = useParams()
  return <OneScene key={id} id={id} />
}

function OneScene({ id }: { readonly id: string }) {
  const { scene, problem } = useOpening(id)
  const isOpen = useScene((state) => state.history?.scene.id === id)
  if (problem) return <ErrorPage message={problem} />
  if (!scene || !isOpen) return <Opening />
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <SceneNotices scene={scene} />
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Outlet context={scene} />
      </Box>
      <LeaveQuestion />
    </Box>
  )
}

/** The open scene, for a screen of it. */
export function useOpenScene(): OpenScene {
  return useOutletContext<OpenScene>()
}

function useOpening(id: string): { readonly scene: OpenScene | undefined; readonly problem: string | undefined } {
  const [scene, setScene] = useState<OpenScene>()
  const [problem, setProblem] = useState<string>()
  useEffect(() => {
    const abort = new AbortController()
    const opening = OpenScene.open(id, abort.signal)
    opening.then(setScene).catch((error: unknown) => {
      if (!abort.signal.aborted) setProblem(error instanceof Error ? error.message : String(error))
    })
    return () => {
      abort.abort()
      opening.then((opened) => opened.close()).catch(() => undefined)
    }
  }, [id])
  return { scene, problem }
}

function Opening() {
  return (
    <Box component="main" sx={{ height: '100%', bgcolor: ink.surround, display: 'grid', placeItems: 'center' }}>
      <Box sx={{ width: 260, bgcolor: ink.paper, p: 4 }} role="status">
        <Box sx={{ mb: 2 }}>Opening the photo …</Box>
        <LinearProgress aria-label="Opening the photo" />
      </Box>
    </Box>
  )
}
