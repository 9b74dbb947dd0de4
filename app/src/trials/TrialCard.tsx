import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import { frameOfSource, framedGraph } from '@welkinar/core'
import { memo, useMemo, type KeyboardEvent } from 'react'
import { ActionMenu, type Action } from '../common/ActionMenu'
import { NameInput } from '../common/NameInput'
import { useSeen } from '../common/useSeen'
import { ink } from '../theme'
import { LookPicture } from '../workbench/pictures/LookPicture'
import type { ShownTrial } from './sheet'
import { markTrial, useTrials } from './trialsStore'

/** What can be done with a trial. */
export interface TrialDeeds {
  take(trial: ShownTrial): void
  rename(trial: ShownTrial, name: string): void
  remove(trial: ShownTrial): void
  /** What else there is in its menu. */
  more(trial: ShownTrial): readonly Action[]
  /** The word for taking it out. */
  readonly removing: string
}

interface TrialCardProps {
  readonly trial: ShownTrial
  /** Css px. */
  readonly width: number
  /** Its place in the sheet; Tab reaches the first. */
  readonly index: number
  /** Whether its name stands under it. */
  readonly isCaptioned: boolean
  readonly deeds: TrialDeeds
  onOpen(): void
  onKeyDown(event: KeyboardEvent): void
}

/** One variant: its picture, its name, and what can be done with it. */
export const TrialCard = memo(
  function TrialCard({ trial, width, index, isCaptioned, deeds, onOpen, onKeyDown }: TrialCardProps) {
    const { id, words, scene } = trial
    const node = useMemo(() => framedGraph(scene), [scene])
    const frame = frameOfSource(scene)
    const height = Math.max(1, Math.round((width * frame.height) / frame.width))
    const isMarked = useTrials(({ marked }) => marked.includes(id))
    const [card, inSight] = useSeen()
    const menu = (
      <ActionMenu
        label={`What can be done with ${words}`}
        actions={() => [
          { label: 'Take over', run: () => deeds.take(trial) },
          { label: 'See it large', run: onOpen },
          { label: isMarked ? 'Do not compare' : 'Compare', run: () => markTrial(id) },
          ...deeds.more(trial),
          { label: deeds.removing, run: () => deeds.remove(trial) },
        ]}
      />
    )
    return (
      <Box ref={card} sx={{ minWidth: 0, '&:hover .take, &:focus-within .take': { visibility: 'visible' } }}>
        <Box sx={{ position: 'relative' }}>
          <ButtonBase
            data-trial
            aria-label={words}
            title={isCaptioned ? undefined : words}
            aria-pressed={isMarked}
            tabIndex={index === 0 ? 0 : -1}
            onClick={onOpen}
            onKeyDown={onKeyDown}
            sx={{
              display: 'block',
              width,
              height,
              bgcolor: ink.stage,
              outline: isMarked ? `3px solid ${ink.accent}` : 'none',
              '&:focus-visible': { outline: `3px solid ${ink.ink}`, outlineOffset: 2 },
            }}
          >
            {inSight && <LookPicture node={node} photo={scene.photo} {...{ frame, width, height }} label="" awaited coarseFirst />}
          </ButtonBase>
          <Box
            className="take"
            sx={{ position: 'absolute', right: 6, bottom: 6, display: 'flex', gap: 1, alignItems: 'center', visibility: 'hidden' }}
          >
            <Button
              variant="contained"
              onClick={() => deeds.take(trial)}
              aria-label={`Take over ${words}`}
              sx={{ px: isCaptioned ? undefined : 2 }}
            >
              Take over
            </Button>
            {!isCaptioned && <Box sx={{ bgcolor: ink.paper }}>{menu}</Box>}
          </Box>
        </Box>
        {isCaptioned && (
          <Box sx={{ display: 'flex', alignItems: 'center', bgcolor: ink.paper, px: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <NameInput
                label={`Name of ${words}`}
                name={words}
                size={13}
                width={width - 40}
                onRename={(name) => deeds.rename(trial, name)}
              />
            </Box>
            {menu}
          </Box>
        )}
      </Box>
    )
  },
  (one, other) =>
    one.trial === other.trial &&
    one.width === other.width &&
    one.index === other.index &&
    one.isCaptioned === other.isCaptioned &&
    one.deeds === other.deeds,
)
