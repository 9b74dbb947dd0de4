import Box from '@mui/material/Box'
import type { PictureSource } from '@welkinar/core'
import { useDeferredValue, type ReactNode } from 'react'
import { HiddenHeading } from '../common/HiddenHeading'
import { PanelBoundary } from '../common/PanelBoundary'
import { useNarrow } from '../common/useNarrow'
import { SourceContext, useOpenScene } from '../scene/openSceneContext'
import { useScene, useSelectedOwner } from '../scene/sceneStore'
import { DepthLine } from './depthLine/DepthLine'
import { LookOffers } from './depthLine/LookOffers'
import { StepsPanel } from './steps/StepsPanel'
import { TopBar } from './topBar/TopBar'
import { useCommands } from './topBar/useCommands'
import { usePictureSource } from './pictures/usePictureSource'
import { PhotoView } from './view/PhotoView'
import { WatchColumn } from './watch/WatchColumn'

/** The bar over the photo and the panel beside both; in a smaller window the bar has the whole width, and in a narrow one the panel lies over the photo. */
const above = {
  flex: 1,
  minHeight: 0,
  display: 'grid',
  position: 'relative',
  gridTemplate: {
    xs: "'bar bar' auto 'photo panel' minmax(0, 1fr) / minmax(0, 1fr) auto",
    lg: "'bar panel' auto 'photo panel' minmax(0, 1fr) / minmax(0, 1fr) auto",
  },
}
const beside = { gridArea: 'panel', minHeight: 0, display: 'flex' }
const overThePhoto = { gridArea: '2 / 1 / 3 / -1', minHeight: 0, display: 'flex', justifySelf: 'end', zIndex: 2 }

/** The screen where a scene is made. */
export function WorkbenchPage() {
  const scene = useOpenScene()
  const source = usePictureSource()
  // While a dial is moved the line follows when there is time for it.
  const later = useDeferredValue(source)
  const sourceOfLine = source && later && hasSameCards(source, later) ? later : source
  const owner = useSelectedOwner()
  const panelOpen = useScene((state) => state.panelOpen)
  const watchOpen = useScene((state) => state.watchOpen)
  const panel = useScene((state) => state.panel)
  const adding = useScene((state) => state.adding)
  const commands = useCommands()
  const isNarrow = useNarrow()
  const hasPanel = panelOpen || adding !== undefined
  const sourceOfWatch = later ?? source
  if (!source || !sourceOfLine || !sourceOfWatch) return null
  // A fault of one part leaves the others; another `key` tries it anew.
  const guarded = (name: string, part: ReactNode, shown: PictureSource = source, key = name) => (
    <PanelBoundary key={key} name={name} save={() => scene.save()}>
      <SourceContext value={shown}>{part}</SourceContext>
    </PanelBoundary>
  )
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Box sx={above}>
        <Box sx={{ gridArea: 'bar' }}>
          <TopBar commands={commands} />
        </Box>
        <Box component="main" sx={{ gridArea: 'photo', display: 'flex' }}>
          <HiddenHeading level="h1">Workbench</HiddenHeading>
          {watchOpen && !(isNarrow && hasPanel) && guarded('The watch column', <WatchColumn />, sourceOfWatch)}
          {guarded('The picture', <PhotoView />)}
        </Box>
        <Box sx={isNarrow ? overThePhoto : beside}>
          {adding && guarded('This panel', <LookOffers place={adding} />, source, adding)}
          {!adding && panelOpen && guarded('This panel', <StepsPanel owner={owner} />, source, panel === 'steps' ? owner?.id : panel)}
        </Box>
      </Box>
      {guarded('The depth line', <DepthLine folded={isNarrow && hasPanel} />, sourceOfLine)}
    </Box>
  )
}

/** Whether the same effects stand on the line, in the same order and groups. */
function hasSameCards(one: PictureSource, other: PictureSource): boolean {
  const names = ({ effects }: PictureSource): string => effects.map(({ id, place, group }) => `${id} ${place} ${group}`).join()
  return one.groups === other.groups && names(one) === names(other)
}
