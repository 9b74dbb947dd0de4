import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import IconButton from '@mui/material/IconButton'
import ListSubheader from '@mui/material/ListSubheader'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Switch from '@mui/material/Switch'
import Tooltip from '@mui/material/Tooltip'
import { CaretLeft } from '@phosphor-icons/react/dist/csr/CaretLeft'
import { CaretRight } from '@phosphor-icons/react/dist/csr/CaretRight'
import { findOwner, modeLabels, type MixMode, type Owner } from '@welkinar/core'
import { useEffect, useState } from 'react'
import { changeOwner, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { modeFamilies, modeLabel, modeNamed, neighbourMode, setMode } from '../actions/mixModes'
import { ClippingHistogram } from './ClippingHistogram'
import { AmountControl } from './AmountControl'

export function mixSummary({ mix }: Owner): string {
  return `${modeLabels[mix.mode]}, ${Math.round(mix.amount)} %${mix.linear ? ', in linear light' : ''}`
}

interface MixStepProps {
  readonly owner: Owner
}

/** Blend mode, amount, and whether light adds as light. The picture follows the mode that is pointed at in the list. */
export function MixStep({ owner }: MixStepProps) {
  const [open, setOpen] = useState(false)
  // The list moves the focus once more while it closes.
  useEffect(() => {
    if (!open) useScene.getState().try(undefined)
  }, [open])
  const tryMode = (mode: MixMode) =>
    open &&
    useScene.getState().try((scene) => {
      const target = findOwner(scene, owner.id)
      if (target) target.mix.mode = mode
    })
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box component="span" id="mix-mode" sx={{ mr: 2 }}>
          Mode
        </Box>
        <Select
          fullWidth
          value={owner.mix.mode}
          onChange={(event) => {
            const mode = modeNamed(event.target.value)
            if (mode) setMode(owner, mode)
          }}
          open={open}
          onOpen={() => setOpen(true)}
          onClose={() => setOpen(false)}
          SelectDisplayProps={{ 'aria-labelledby': 'mix-mode' }}
        >
          {modeFamilies.flatMap(({ title, modes }) => [
            <ListSubheader key={title} sx={{ lineHeight: '26px', fontSize: 12, bgcolor: 'transparent' }}>
              {title}
            </ListSubheader>,
            ...modes.map((mode) => (
              <MenuItem key={mode} value={mode} onFocus={() => tryMode(mode)} onMouseEnter={() => tryMode(mode)}>
                {modeLabel(owner, mode)}
              </MenuItem>
            )),
          ])}
        </Select>
        <StepMode owner={owner} by={-1} />
        <StepMode owner={owner} by={1} />
      </Box>
      <AmountControl owner={owner} />
      <FormControlLabel
        control={
          <Switch
            checked={owner.mix.linear}
            onChange={(_, linear) => changeOwner(owner.id, 'Blend in linear light', (one) => void (one.mix.linear = linear))}
          />
        }
        label="Blend in linear light"
        slotProps={{ typography: { sx: { ml: 2 } } }}
        sx={{ ml: 0 }}
      />
      <ClippingHistogram owner={owner} />
    </>
  )
}

function StepMode({ owner, by }: { readonly owner: Owner; readonly by: -1 | 1 }) {
  const next = neighbourMode(owner.mix.mode, by)
  const label = by < 0 ? 'Mode before' : 'Mode after'
  return (
    <Tooltip title={`${label}: ${modeLabels[next]} (${by < 0 ? 'Shift M' : 'M'})`}>
      <IconButton size="small" aria-label={label} onClick={() => setMode(owner, next)} sx={{ color: ink.ink, borderRadius: '3px' }}>
        {by < 0 ? <CaretLeft size={16} /> : <CaretRight size={16} />}
      </IconButton>
    </Tooltip>
  )
}
