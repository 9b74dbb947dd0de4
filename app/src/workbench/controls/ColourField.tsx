import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { GraphNode } from '@welkinar/core'
import { useLayoutEffect } from 'react'
import { setColourTaker, type TakeColour } from '../../scene/colourTakers'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'

interface ColourFieldProps {
  /** What it is the colour of, as it is read out. */
  readonly label: string
  /** Whether the label is to be seen too. */
  readonly shown?: boolean
  /** #rrggbb. */
  readonly value: string
  /** @param gesture what belongs to one step of the history */
  onChange(hex: string, gesture?: string): void
}

/** A colour: a swatch that opens the browser's own choice, and a dropper for the photo. */
export function ColourField({ label, shown = false, value, onChange }: ColourFieldProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
      <Box
        component="input"
        type="color"
        aria-label={label}
        value={value}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => onChange(event.target.value, label)}
        sx={{ width: 40, height: 32, p: 0, border: `1px solid ${ink.rule}`, bgcolor: 'transparent', flex: 'none' }}
      />
      {shown && <Box sx={{ flex: 1, minWidth: 0 }}>{label}</Box>}
      <DropperButton what={label} onTake={(hex) => onChange(hex)} />
    </Box>
  )
}

interface DropperButtonProps {
  readonly what: string
  /** Where it is read from, if that is settled. */
  readonly tones?: GraphNode
  readonly onTake: TakeColour
}

/** Takes a colour from a place on the photo, or puts the dropper away. */
export function DropperButton({ what, tones, onTake }: DropperButtonProps) {
  const held = useScene(({ tool }) => tool?.kind === 'dropper' && tool.what === what)
  useLayoutEffect(() => setColourTaker(what, onTake, tones))
  return (
    <Button
      variant={held ? 'contained' : 'outlined'}
      aria-pressed={held}
      aria-label={`${what}: Pick from the photo`}
      onClick={() => useScene.getState().set({ tool: held ? undefined : { kind: 'dropper', what } })}
    >
      Pick from the photo
    </Button>
  )
}
