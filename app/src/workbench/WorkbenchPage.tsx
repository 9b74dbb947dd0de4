import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import type { PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useMemo } from 'react'
import { useParams } from 'react-router'
import { ErrorPage } from '../common/ErrorPage'
import { useScene, useSelectedEffect } from '../scene/sceneStore'
import { ink } from '../theme'
import { DepthLine } from './depthLine/DepthLine'
import { SaveTrouble } from './SaveTrouble'
import { StepsPanel } from './steps/StepsPanel'
import { TopBar } from './topBar/TopBar'
import { useCommands } from './topBar/useCommands'
import { useOpenScene } from './useOpenScene'
import { useThumbnail } from './useThumbnail'
import { PhotoView } from './view/PhotoView'

/** The screen where a scene is made. */
export function WorkbenchPage() {
  const { id = '' } = useParams()
  const { pool, problem } = useOpenScene(id)
  if (problem) return <ErrorPage message={problem.message} />
  return pool ? <Workbench pool={pool} /> : <Opening />
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

function Workbench({ pool }: { readonly pool: RenderPool }) {
  const source = usePictureSource()
  const effect = useSelectedEffect()
  const commands = useCommands()
  useThumbnail(pool, source)
  if (!source) return null
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
          <TopBar commands={commands} />
          <SaveTrouble />
          <PhotoView pool={pool} source={source} />
        </Box>
        <StepsPanel pool={pool} source={source} effect={effect} />
      </Box>
      <DepthLine pool={pool} source={source} />
    </Box>
  )
}

/** Photo and effects of the open scene; the same object as long as neither changes. */
function usePictureSource(): PictureSource | undefined {
  const photo = useScene((state) => state.history?.scene.photo)
  const effects = useScene((state) => state.history?.scene.effects)
  return useMemo(() => photo && effects && { photo, effects }, [photo, effects])
}
