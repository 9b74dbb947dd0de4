import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { useKeys } from '../keys/listener'
import { zoomCommands } from '../scene/zoomCommands'
import { ink } from '../theme'
import { ScenePane } from '../workbench/view/ScenePane'
import type { ShownTrial } from './sheet'
import { useTrials } from './trialsStore'

interface LargeTrialsProps {
  /** Those of the sheet, in its order. */
  readonly all: readonly ShownTrial[]
  /** Those that are seen, one to four of them. */
  readonly seen: readonly ShownTrial[]
  onTake(trial: ShownTrial): void
}

/** Trials as large as there is room, side by side, at the same place of the photo. Arrow keys go through them in place: of one alone through all of the sheet, else through those that are compared. */
export function LargeTrials({ all, seen, onTake }: LargeTrialsProps) {
  const [only, setOnly] = useState<number>()
  const inPlace = only === undefined ? undefined : seen[only % seen.length]
  const shown = inPlace ? [inPlace] : seen
  const go = (by: -1 | 1) => {
    const [one] = seen
    if (seen.length === 1 && one) {
      const at = all.findIndex(({ id }) => id === one.id)
      const next = all[(at + by + all.length) % all.length]
      if (next) useTrials.setState({ large: [next.id] })
    } else setOnly(((only ?? (by > 0 ? -1 : 0)) + by + seen.length) % seen.length)
  }
  useKeys([
    { id: 'trial-next', repeats: true, run: () => go(1) },
    { id: 'trial-before', repeats: true, run: () => go(-1) },
    ...zoomCommands,
    { id: 'tool-off', run: () => (only === undefined ? useTrials.setState({ large: [] }) : setOnly(undefined)) },
  ])
  return (
    <Box
      sx={{
        flex: 1,
        minHeight: 0,
        display: 'grid',
        gap: '2px',
        bgcolor: ink.rule,
        gridTemplateColumns: `repeat(${shown.length > 1 ? 2 : 1}, minmax(0, 1fr))`,
        gridAutoRows: 'minmax(0, 1fr)',
      }}
    >
      {shown.map((trial, index) => (
        <ScenePane
          key={inPlace || seen.length === 1 ? 'only' : trial.id}
          scene={trial.scene}
          words={trial.words}
          wide={shown.length === 3 && index === 0}
        >
          <Button variant="contained" onClick={() => onTake(trial)} aria-label={`Take over ${trial.words}`}>
            Take over
          </Button>
        </ScenePane>
      ))}
    </Box>
  )
}
