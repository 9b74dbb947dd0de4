import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import type { Scene } from '@welkinar/core'
import { useCallback, useDeferredValue, useEffect, useMemo } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { showProblem } from '../common/notices'
import { NARROW } from '../common/useNarrow'
import { usePool } from '../scene/openSceneContext'
import { SceneBar } from '../scene/SceneBar'
import { useScene, useSelectedOwner } from '../scene/sceneStore'
import { AxesPanel } from './AxesPanel'
import { deedsOfKept, deedsOfVariants, takeTrial } from './deeds'
import { LargeTrials } from './LargeTrials'
import { saveSheet } from './saveSheet'
import { firstAxis, type Edges, type ShownTrial } from './sheet'
import type { TrialDeeds } from './TrialCard'
import { TrialGrid } from './TrialGrid'
import { beginTrials, show, useTrials } from './trialsStore'
import { useKept } from './useKept'
import { useVariants } from './useVariants'

/** The screen where variants of the open scene are seen side by side, and one is taken; and its kept states. */
export function TrialsPage() {
  const scene = useScene(({ history }) => history?.scene)
  return scene ? <Trials scene={scene} /> : null
}

function Trials({ scene }: { readonly scene: Scene }) {
  const navigate = useNavigate()
  const owner = useSelectedOwner()
  const first = owner ?? scene.effects.at(-1)
  const [parameters] = useSearchParams()
  const asksForKept = parameters.has('kept')
  useEffect(() => beginTrials(scene.id, first && firstAxis(scene, first)), [scene, first])
  useEffect(() => show(asksForKept ? 'kept' : 'variants'), [asksForKept])
  const { shows, across, down, away, large } = useTrials()
  const { variants, edges } = useVariants(scene)
  const kept = useKept(scene)
  const take = useCallback(
    (trial: ShownTrial) => {
      if (takeTrial(trial)) void navigate(`/scene/${scene.id}`)
    },
    [navigate, scene.id],
  )
  const sheet = useMemo(
    () =>
      shows === 'kept'
        ? { shows, trials: kept, edges: undefined, deeds: deedsOfKept(take) }
        : { shows, trials: variants, edges, deeds: deedsOfVariants(take) },
    [shows, kept, variants, edges, take],
  )
  // Each picture has a graph to build: the page answers between them.
  const later = useDeferredValue<Sheet>(sheet)
  const seen = later.trials.filter(({ id }) => large.includes(id))
  return (
    <Box sx={{ height: '100%', display: 'flex', [NARROW]: { flexDirection: 'column' } }}>
      <Box component="main" sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <Bar scene={scene} trials={sheet.trials} kept={kept.length} columns={sheet.edges?.columns.length} isLarge={seen.length > 0} />
        {seen.length > 0 ? (
          <LargeTrials all={later.trials} seen={seen} onTake={take} />
        ) : (
          <TrialGrid key={later.shows} trials={later.trials} edges={later.edges} deeds={later.deeds} />
        )}
      </Box>
      {seen.length === 0 && <AxesPanel scene={scene} shows={shows} across={across} down={down} away={away.length} />}
    </Box>
  )
}

/** What is on the sheet, and what can be done with it. */
interface Sheet {
  readonly shows: 'variants' | 'kept'
  readonly trials: readonly ShownTrial[]
  readonly edges: Edges | undefined
  readonly deeds: TrialDeeds
}

interface BarProps {
  readonly scene: Scene
  readonly trials: readonly ShownTrial[]
  /** How many states are kept. */
  readonly kept: number
  readonly columns: number | undefined
  readonly isLarge: boolean
}

function Bar({ scene, trials, kept, columns, isLarge }: BarProps) {
  const pool = usePool()
  const { shows, marked } = useTrials()
  const save = () => {
    saveSheet(pool, scene, trials, columns).catch((error: unknown) => showProblem(error, 'Saving the sheet'))
  }
  return (
    <SceneBar sceneId={scene.id} title="Trials" about={scene.name}>
      {isLarge ? (
        <Button variant="outlined" onClick={() => useTrials.setState({ large: [] })}>
          Back to the sheet
        </Button>
      ) : (
        <>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label="What is on the sheet"
            value={shows}
            onChange={(_, next: typeof shows | null) => next && show(next)}
          >
            <ToggleButton value="variants">Variants</ToggleButton>
            <ToggleButton value="kept">Kept ({kept})</ToggleButton>
          </ToggleButtonGroup>
          <Button variant="outlined" disabled={trials.length === 0} onClick={save}>
            Save the sheet
          </Button>
          <Button variant="contained" disabled={marked.length < 2} onClick={() => useTrials.setState({ large: marked })}>
            Compare {marked.length > 1 ? marked.length : ''}
          </Button>
        </>
      )}
    </SceneBar>
  )
}
