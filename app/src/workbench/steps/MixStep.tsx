import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import ListSubheader from '@mui/material/ListSubheader'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Switch from '@mui/material/Switch'
import { mixModes, type Effect, type MixMode } from '@welkinar/core'
import { changeEffect } from '../../scene/sceneStore'
import { AmountControl } from './AmountControl'

/** Names of the modes as the recommendation of the W3C and the trade write them. */
const modeLabels: Record<MixMode, string> = {
  normal: 'Normal',
  multiply: 'Multiply',
  screen: 'Screen',
  overlay: 'Overlay',
  darken: 'Darken',
  lighten: 'Lighten',
  'color-dodge': 'Colour dodge',
  'color-burn': 'Colour burn',
  'hard-light': 'Hard light',
  'soft-light': 'Soft light',
  difference: 'Difference',
  exclusion: 'Exclusion',
  hue: 'Hue',
  saturation: 'Saturation',
  color: 'Colour',
  luminosity: 'Luminosity',
  'plus-lighter': 'Addition',
  'linear-light': 'Linear light',
  subtract: 'Subtract',
}

/** What a mode does to the picture, for finding one. */
const modeFamilies: readonly { readonly title: string; readonly modes: readonly MixMode[] }[] = [
  { title: 'Covers', modes: ['normal'] },
  { title: 'Lightens', modes: ['screen', 'plus-lighter', 'lighten', 'color-dodge'] },
  { title: 'Darkens', modes: ['multiply', 'darken', 'color-burn', 'subtract'] },
  { title: 'Adds contrast', modes: ['overlay', 'soft-light', 'hard-light', 'linear-light'] },
  { title: 'Compares', modes: ['difference', 'exclusion'] },
  { title: 'Takes over a part of the colour', modes: ['hue', 'saturation', 'color', 'luminosity'] },
]

export function mixSummary(effect: Effect): string {
  return `${modeLabels[effect.mix.mode]}, ${Math.round(effect.mix.amount)} %${effect.mix.linear ? ', in linear light' : ''}`
}

/** Blend mode, amount, and whether light adds as light. */
export function MixStep({ effect }: { readonly effect: Effect }) {
  const setMode = (mode: string) => {
    const known = mixModes.find((candidate) => candidate === mode)
    if (known) changeEffect(effect.id, `Mix: ${modeLabels[known]}`, (one) => void (one.mix.mode = known))
  }
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 3 }}>
        <Box component="span" id="mix-mode">
          Mode
        </Box>
        <Select
          fullWidth
          value={effect.mix.mode}
          onChange={(event) => setMode(event.target.value)}
          SelectDisplayProps={{ 'aria-labelledby': 'mix-mode' }}
        >
          {modeFamilies.flatMap(({ title, modes }) => [
            <ListSubheader key={title} sx={{ lineHeight: '26px', fontSize: 12, bgcolor: 'transparent' }}>
              {title}
            </ListSubheader>,
            ...modes.map((mode) => (
              <MenuItem key={mode} value={mode}>
                {modeLabels[mode]}
              </MenuItem>
            )),
          ])}
        </Select>
      </Box>
      <AmountControl effect={effect} />
      <FormControlLabel
        control={
          <Switch
            checked={effect.mix.linear}
            onChange={(_, linear) => changeEffect(effect.id, 'Linear light', (one) => void (one.mix.linear = linear))}
          />
        }
        label="In linear light"
        slotProps={{ typography: { sx: { ml: 2 } } }}
        sx={{ ml: 0 }}
      />
    </>
  )
}
