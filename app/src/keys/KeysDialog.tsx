import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import TextField from '@mui/material/TextField'
import { useState, type KeyboardEvent } from 'react'
import { HiddenHeading } from '../common/HiddenHeading'
import { ink } from '../theme'
import type { Command } from './commands'
import { giveStroke, isChanged, ownerOf, strokesOf, useKeymap, usualStrokeOf } from './keymap'
import { strokeInWords, strokeOf } from './strokes'

/** What keys do that no command does. */
const others: readonly Pick<Command, 'id' | 'label'>[] = [
  { id: 'commands', label: 'Find a command' },
  { id: 'keys', label: 'This table' },
  { id: 'steps', label: 'All steps' },
  { id: 'tool-done', label: 'With a tool: finish what is drawn' },
  { id: 'tool-back', label: 'With a tool: take the last corner back' },
  { id: 'hold-move', label: 'While held, with a tool: move the photo' },
  { id: 'shape-left', label: 'Correct here: move the shape to the left' },
  { id: 'shape-right', label: 'Correct here: move the shape to the right' },
  { id: 'shape-up', label: 'Correct here: move the shape up' },
  { id: 'shape-down', label: 'Correct here: move the shape down' },
  { id: 'shape-smaller', label: 'Correct here: make the shape smaller' },
  { id: 'shape-larger', label: 'Correct here: make the shape larger' },
  { id: 'shape-ring', label: 'Correct here: go to the ring' },
]

interface KeysDialogProps {
  readonly commands: readonly Command[]
  readonly open: boolean
  onClose(): void
}

/** All keys, found by typing; each can be changed. */
export function KeysDialog({ commands, open, onClose }: KeysDialogProps) {
  const [wanted, setWanted] = useState('')
  const [asking, setAsking] = useState<string>()
  const keymap = useKeymap()
  const all = [...commands, ...others].filter(({ id }) => strokesOf(id, keymap).length > 0 || id in keymap.own)
  const shown = all.filter(({ id, label }) => {
    const words = `${label} ${strokesOf(id, keymap).map(strokeInWords).join(' ')}`.toLowerCase()
    return wanted
      .toLowerCase()
      .split(/\s+/)
      .every((word) => words.includes(word))
  })
  return (
    <Dialog
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { 'aria-label': 'Keys' } }}
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start' } }}
    >
      <Box sx={{ p: 4, display: 'grid', gap: 3 }}>
        <HiddenHeading level="h2">Keys</HiddenHeading>
        <TextField
          autoFocus
          placeholder="Find a key, or what it does"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          slotProps={{ htmlInput: { 'aria-label': 'Find a key' } }}
        />
        <Box component="ul" aria-label="All keys" sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 'min(520px, 60vh)', overflowY: 'auto' }}>
          {shown.map(({ id, label }) => (
            <KeyRow
              key={id}
              id={id}
              label={label}
              asking={asking === id}
              onAsk={(ask) => setAsking(ask ? id : undefined)}
              nameOf={(other) => all.find((one) => one.id === other)?.label ?? other}
            />
          ))}
          {shown.length === 0 && <Box component="li">Nothing found.</Box>}
        </Box>
      </Box>
    </Dialog>
  )
}

interface KeyRowProps {
  readonly id: string
  readonly label: string
  readonly asking: boolean
  onAsk(ask: boolean): void
  nameOf(id: string): string
}

function KeyRow({ id, label, asking, onAsk, nameOf }: KeyRowProps) {
  const [taken, setTaken] = useState<{ readonly stroke: string; readonly by: string }>()
  const strokes = strokesOf(id)
  const stop = (): void => {
    setTaken(undefined)
    onAsk(false)
  }
  const give = (stroke: string): void => {
    giveStroke(id, stroke === usualStrokeOf(id) ? undefined : stroke)
    stop()
  }
  const backToUsual = (): void => {
    const stroke = usualStrokeOf(id)
    const by = stroke === undefined ? undefined : ownerOf(stroke, id)
    if (stroke !== undefined && by !== undefined) setTaken({ stroke, by })
    else giveStroke(id, undefined)
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!asking || event.key === 'Tab') return
    event.preventDefault()
    event.stopPropagation()
    if (event.key === 'Escape') return stop()
    const stroke = strokeOf(event.nativeEvent)
    if (stroke === undefined) return
    const by = ownerOf(stroke, id)
    if (by === undefined) give(stroke)
    else setTaken({ stroke, by })
  }
  const words = strokes.slice(0, 1).map(strokeInWords).join()
  return (
    <Box
      component="li"
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 3, minHeight: 40, borderBottom: `1px solid ${ink.rule}` }}
    >
      <Box sx={{ flex: 1, minWidth: 220 }}>{label}</Box>
      <Button
        variant={asking ? 'contained' : 'outlined'}
        aria-label={asking ? `Press the key for ${label}` : `Key of ${label}: ${words || 'none'}. Change it`}
        onClick={() => (taken ? undefined : onAsk(!asking))}
        onKeyDown={onKeyDown}
        onBlur={() => !taken && asking && stop()}
        sx={{ minWidth: 110 }}
      >
        {asking ? 'Press a key …' : words || 'none'}
      </Button>
      <Box sx={{ width: 84 }}>
        {isChanged(id) && (
          <Button variant="text" onClick={backToUsual}>
            As usual
          </Button>
        )}
      </Box>
      {taken && (
        <Box role="alert" sx={{ flexBasis: '100%', display: 'flex', alignItems: 'center', gap: 3, pb: 2 }}>
          <Box sx={{ flex: 1 }}>
            {strokeInWords(taken.stroke)} is the key of “{nameOf(taken.by)}”, which would have none.
          </Box>
          <Button variant="outlined" onClick={() => give(taken.stroke)}>
            Take it
          </Button>
          <Button variant="text" onClick={stop}>
            Cancel
          </Button>
        </Box>
      )}
    </Box>
  )
}
