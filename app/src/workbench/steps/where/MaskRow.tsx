import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Switch from '@mui/material/Switch'
import { X } from '@phosphor-icons/react/dist/csr/X'
import { maskJoins, type Effect, type Mask, type MaskJoin } from '@welkinar/core'
import { changeEffect } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { maskWords } from './whereSummary'

interface MaskRowProps {
  readonly effect: Effect
  readonly mask: Mask
  readonly index: number
  readonly chosen: boolean
  onChoose(): void
}

const joinLabels: Record<MaskJoin, string> = { keep: 'Keep', add: 'Add', subtract: 'Subtract' }

/** One mask of the list: how it joins, what it is, on or off, and out. */
export function MaskRow({ effect, mask, index, chosen, onChoose }: MaskRowProps) {
  const words = maskWords(mask)
  const change = (label: string, edit: (mask: Mask) => void) =>
    changeEffect(effect.id, label, (one) => {
      const target = one.where.masks.find(({ id }) => id === mask.id)
      if (target) edit(target)
    })
  const setJoin = (value: string) => {
    const join = maskJoins.find((candidate) => candidate === value)
    if (join) change('Join of the mask', (target) => void (target.join = join))
  }
  return (
    <Box role="listitem" sx={{ display: 'flex', alignItems: 'center', gap: 2, minHeight: 36, opacity: mask.on ? 1 : 0.6 }}>
      <Select
        value={mask.join}
        onChange={(event) => setJoin(event.target.value)}
        SelectDisplayProps={{ 'aria-label': `How mask ${index + 1} joins` }}
        sx={{ width: 92, flex: 'none' }}
      >
        {maskJoins.map((join) => (
          <MenuItem key={join} value={join}>
            {joinLabels[join]}
          </MenuItem>
        ))}
      </Select>
      <ButtonBase
        onClick={onChoose}
        aria-pressed={chosen}
        sx={{ flex: 1, minWidth: 0, justifyContent: 'flex-start', textAlign: 'left', minHeight: 30, fontWeight: chosen ? 650 : 400 }}
      >
        {words}
      </ButtonBase>
      <Switch
        checked={mask.on}
        onChange={(_, on) => change('Switch mask', (target) => void (target.on = on))}
        slotProps={{ input: { 'aria-label': `Mask ${index + 1}, ${words}, on` } }}
      />
      <IconButton
        size="small"
        aria-label={`Remove mask ${index + 1}`}
        sx={{ color: ink.ink }}
        onClick={() =>
          changeEffect(effect.id, 'Remove mask', (one) => void (one.where.masks = one.where.masks.filter(({ id }) => id !== mask.id)))
        }
      >
        <X size={14} />
      </IconButton>
    </Box>
  )
}
