import Box from '@mui/material/Box'
import { useEffect, useState } from 'react'
import { Outlet, useParams } from 'react-router'
import { ErrorPage } from '../common/ErrorPage'
import { OpeningScene } from './OpeningScene'
import { OpenScene } from './openScene'
import { showStoredWhileOpening, showWhileOpening } from './openingPicture'
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
  if (!scene || !isOpen) return <OpeningScene />
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <SceneNotices scene={scene} />
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Outlet context={scene} />
      </Box>
      <LeaveQuestion scene={scene} />
    </Box>
  )
}

function useOpening(id: string): { readonly scene: OpenScene | undefined; readonly problem: string | undefined } {
  const [scene, setScene] = useState<OpenScene>()
  const [problem, setProblem] = useState<string>()
  useEffect(() => {
    const abort = new AbortController()
    showStoredWhileOpening(id, abort.signal).catch((error: unknown) => console.warn(error))
    OpenScene.open(id, abort.signal)
      .then(setScene)
      .catch((error: unknown) => {
        if (!abort.signal.aborted) setProblem(error instanceof Error ? error.message : String(error))
      })
    return () => {
      abort.abort()
      showWhileOpening(undefined)
    }
  }, [id])
  return { scene, problem }
}
