import Box from '@mui/material/Box'
import { Fragment, useRef, type KeyboardEvent } from 'react'
import { useScreenSize } from '../common/useScreenSize'
import { ink } from '../theme'
import type { Edges, ShownTrial } from './sheet'
import { TrialCard, type TrialDeeds } from './TrialCard'
import { markTrial, useTrials } from './trialsStore'

interface TrialGridProps {
  readonly trials: readonly ShownTrial[]
  /** Of two axes. */
  readonly edges: Edges | undefined
  readonly deeds: TrialDeeds
}

/** Css px. */
const LEAST_WIDTH = 300
const LEAST_OF_TWO_AXES = 110
const ROW_HEAD = 92
const GAP = 12
const PADDING = 14

/** The sheet: keys go through it, Enter opens one large, M marks it for comparing, Delete takes it out. */
export function TrialGrid({ trials, edges, deeds }: TrialGridProps) {
  const place = useRef<HTMLDivElement>(null)
  const room = useScreenSize(place)
  const inner = (room?.width ?? 0) - 2 * PADDING - (edges ? ROW_HEAD + GAP : 0)
  const fitting = Math.max(1, Math.floor((inner + GAP) / (LEAST_WIDTH + GAP)))
  const across = edges?.columns.length ?? Math.min(fitting, Math.max(1, trials.length))
  const width = Math.max(edges ? LEAST_OF_TWO_AXES : LEAST_WIDTH, Math.floor((inner - (across - 1) * GAP) / across))
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    const trial = trials[index]
    const cards = [...(place.current?.querySelectorAll<HTMLElement>('[data-trial]') ?? [])]
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across }[event.key]
    if (!trial || event.ctrlKey || event.metaKey || event.altKey) return
    if (by) cards[Math.min(cards.length - 1, Math.max(0, index + by))]?.focus()
    else if (event.key === 'Delete') {
      cards[index + 1 < cards.length ? index + 1 : index - 1]?.focus()
      deeds.remove(trial)
    } else if (event.key.toLowerCase() === 'm') markTrial(trial.id)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <Box ref={place} sx={{ flex: 1, minHeight: 0, overflow: 'auto', bgcolor: ink.surround }}>
      {room && (
        <Box
          role="group"
          aria-label="Trials; arrow keys go through them, Enter opens one large, M marks it for comparing, Delete takes it out"
          sx={{
            p: `${PADDING}px`,
            display: 'grid',
            gridTemplateColumns: `${edges ? `${ROW_HEAD}px ` : ''}repeat(${across}, ${width}px)`,
            gap: `${GAP}px`,
          }}
        >
          {edges && (
            <>
              <Box />
              {edges.columns.map((words) => (
                <Edge key={words} words={words} stays={{ top: 0 }} />
              ))}
            </>
          )}
          {trials.map((trial, index) => (
            <Fragment key={trial.id}>
              {edges && index % across === 0 && <Edge words={edges.rows[index / across] ?? ''} stays={{ left: 0 }} />}
              <TrialCard
                trial={trial}
                width={width}
                index={index}
                isCaptioned={!edges}
                onOpen={() => useTrials.setState({ large: [trial.id] })}
                deeds={deeds}
                onKeyDown={(event) => onKeyDown(event, index)}
              />
            </Fragment>
          ))}
        </Box>
      )}
    </Box>
  )
}

interface EdgeProps {
  readonly words: string
  /** Where it stays in sight. */
  readonly stays: { readonly top?: number; readonly left?: number }
}

/** What all of a column, or of a row, have in common. */
function Edge({ words, stays }: EdgeProps) {
  return (
    <Box
      sx={{
        position: 'sticky',
        zIndex: 1,
        ...stays,
        alignSelf: 'center',
        px: 2,
        py: 1,
        bgcolor: ink.paper,
        overflowWrap: 'anywhere',
        textAlign: 'center',
      }}
    >
      {words}
    </Box>
  )
}
