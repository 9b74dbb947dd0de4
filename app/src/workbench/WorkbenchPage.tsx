import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import type { RenderPool } from '@welkinar/core/pool'
import { useParams } from 'react-router'
import { ErrorPage } from '../common/ErrorPage'
import { useScene, useSelectedOwner } from '../scene/sceneStore'
import { ink } from '../theme'
import { DepthLine } from './depthLine/DepthLine'
import { SaveTrouble } from './SaveTrouble'
import { StepsPanel } from './steps/StepsPanel'
import { TopBar } from './topBar/TopBar'
import { useCommands } from './topBar/useCommands'
import { useOpenScene } from './useOpenScene'
import { usePictureSource } from './usePictureSource'
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
  const owner = useSelectedOwner()
  const panelOpen = useScene((state) => state.panelOpen)
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
        {panelOpen && <StepsPanel pool={pool} source={source} owner={owner} />}
      </Box>
      <DepthLine pool={pool} source={source} />
    </Box>
  )
}
