import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { ArrowUUpLeft } from '@phosphor-icons/react/dist/csr/ArrowUUpLeft'
import { ArrowUUpRight } from '@phosphor-icons/react/dist/csr/ArrowUUpRight'
import type { Scene } from '@welkinar/core'
import { produce } from 'immer'
import { useEffect, useMemo } from 'react'
import { Link, useNavigate } from 'react-router'
import { showNotice, showProblem } from '../common/notices'
import { CommandIcon } from '../keys/CommandIcon'
import type { Command } from '../keys/commands'
import { useKeys } from '../keys/listener'
import { usePool } from '../scene/openSceneContext'
import { useScene, useSelectedOwner } from '../scene/sceneStore'
import { addSceneLike } from '../storage/scenes'
import { ink, weight } from '../theme'
import { AxesPanel } from './AxesPanel'
import { LargeTrials } from './LargeTrials'
import { saveSheet } from './saveSheet'
import { firstAxis, sheetOf, type Trial } from './sheet'
import { TrialGrid } from './TrialGrid'
import { beginTrials, useTrials } from './trialsStore'

/** A trial with the scene as it would be. */
export interface ShownTrial extends Trial {
  readonly scene: Scene
}

/** The screen where variants of the open scene are seen side by side, and one is taken. */
export function TrialsPage() {
  const scene = useScene(({ history }) => history?.scene)
  return scene ? <Trials scene={scene} /> : null
}

function Trials({ scene }: { readonly scene: Scene }) {
  const navigate = useNavigate()
  const pool = usePool()
  const owner = useSelectedOwner()
  const first = owner ?? scene.effects.at(-1)
  useEffect(() => beginTrials(scene.id, first && firstAxis(scene, first)), [scene, first])
  const { across, down, away, marked, names, large } = useTrials()
  const sheet = useMemo(() => sheetOf(scene, across, down), [scene, across, down])
  const trials = useMemo(
    () =>
      sheet.trials
        .filter(({ id }) => !away.includes(id))
        .map((trial): ShownTrial => ({
          ...trial,
          words: names[trial.id] ?? trial.words,
          scene: produce(scene, (draft) => trial.change(draft)),
        })),
    [sheet, away, names, scene],
  )
  // With gaps in it the sheet has no edges.
  const edges = away.length > 0 ? undefined : sheet.edges
  const seenLarge = trials.filter(({ id }) => large.includes(id))
  const { undo, redo } = useScene.getState()
  const canUndo = useScene((state) => (state.history?.position ?? 0) > 0)
  const canRedo = useScene(({ history }) => (history ? history.position < history.entries.length : false))
  const commands: readonly [Command, Command] = [
    { id: 'undo', label: 'Undo', enabled: canUndo, repeats: true, run: undo },
    { id: 'redo', label: 'Redo', enabled: canRedo, repeats: true, run: redo },
  ]
  useKeys(commands)
  const take = ({ words, change }: Trial) => {
    if (useScene.getState().change(`Trial: ${words}`, change)) void navigate(`/scene/${scene.id}`)
  }
  const keep = ({ words, scene: made }: ShownTrial) => {
    addSceneLike(made, words, Date.now())
      .then(() => showNotice(`“${words}” is a scene of its own on the Shelf now.`))
      .catch((error: unknown) => showProblem(error, 'Keeping the trial'))
  }
  const save = () => {
    saveSheet(pool, scene, trials, edges?.columns.length).catch((error: unknown) => showProblem(error, 'Saving the sheet'))
  }
  return (
    <Box sx={{ height: '100%', display: 'flex' }}>
      <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <Box
          component="header"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 2,
            px: 4,
            minHeight: 48,
            flex: 'none',
            bgcolor: ink.paper,
            borderBottom: `1px solid ${ink.rule}`,
            whiteSpace: 'nowrap',
          }}
        >
          <Button component={Link} to={`/scene/${scene.id}`} variant="text">
            ← Workbench
          </Button>
          <Box component="h1" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong }}>
            Trials
          </Box>
          <Box sx={{ flex: 1, color: ink.secondary, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>{scene.name}</Box>
          <CommandIcon command={commands[0]} icon={<ArrowUUpLeft size={18} />} />
          <CommandIcon command={commands[1]} icon={<ArrowUUpRight size={18} />} />
          {seenLarge.length > 0 ? (
            <Button variant="outlined" onClick={() => useTrials.setState({ large: [] })}>
              Back to the sheet
            </Button>
          ) : (
            <>
              <Button variant="outlined" disabled={trials.length === 0} onClick={save}>
                Save the sheet
              </Button>
              <Button variant="contained" disabled={marked.length < 2} onClick={() => useTrials.setState({ large: marked })}>
                Compare {marked.length > 1 ? marked.length : ''}
              </Button>
            </>
          )}
        </Box>
        {seenLarge.length > 0 ? (
          <LargeTrials all={trials} seen={seenLarge} onTake={take} />
        ) : (
          <TrialGrid trials={trials} edges={edges} onTake={take} onKeep={keep} />
        )}
      </Box>
      {seenLarge.length === 0 && <AxesPanel scene={scene} across={across} down={down} away={away.length} />}
    </Box>
  )
}
