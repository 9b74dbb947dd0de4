import Box from '@mui/material/Box'
import Tooltip from '@mui/material/Tooltip'
import { nearestNumber, numberProblem, type NumberControl, type NumberLimits } from '@welkinar/core'
import { useId, useState, type KeyboardEvent } from 'react'
import { keysGesture } from './keysGesture'
import { numberIn, numberText } from './numberText'
import { ink } from '../theme'

interface NumberFieldProps {
  /** Id of the element that names it, or its name where none is shown. */
  readonly labelledBy?: string
  readonly label?: string
  readonly value: number
  readonly limits: NumberLimits
  /** Its step, its unit, and how it is written. */
  readonly control: Pick<NumberControl, 'step' | 'unit' | 'written'>
  /** @param gesture names what is one step for undo */
  onChange(value: number, gesture?: string): void
}

/** Types a number: Enter or leaving takes it, Escape drops it, arrow keys step (Shift × 10). Says why a number cannot be taken. */
export function NumberField({ labelledBy, label, value, limits, control, onChange }: NumberFieldProps) {
  const [typed, setTyped] = useState<string>()
  const id = useId()
  const problem = typed === undefined ? undefined : numberProblem(numberIn(typed, control.written), limits)
  const take = () => {
    if (typed !== undefined && !problem) onChange(numberIn(typed, control.written))
    setTyped(undefined)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && !problem) take()
    else if (event.key === 'Escape' && typed !== undefined) {
      // What lies around the field, such as a dialog, stays.
      event.stopPropagation()
      setTyped(undefined)
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault()
      const by = (event.key === 'ArrowUp' ? control.step : -control.step) * (event.shiftKey ? 10 : 1)
      setTyped(undefined)
      onChange(Number(nearestNumber(value + by, limits).toFixed(4)), keysGesture(id))
    }
  }
  const text = typed ?? numberText(value, control)
  return (
    <Tooltip describeChild open={problem !== undefined} title={problem ?? ''} placement="left">
      <Box
        component="input"
        type="text"
        inputMode="decimal"
        aria-labelledby={labelledBy}
        aria-label={label}
        aria-invalid={problem !== undefined}
        value={text}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onBlur={take}
        onKeyDown={onKeyDown}
        sx={{
          width: `${Math.max(4, text.length) + 0.6}ch`,
          font: 'inherit',
          color: problem ? ink.accent : ink.ink,
          textAlign: 'right',
          border: '1px solid transparent',
          borderRadius: '3px',
          background: 'transparent',
          p: '1px 2px',
          minHeight: 24,
          '&:hover': { borderColor: ink.rule },
          '&:focus': { background: ink.white },
        }}
      />
    </Tooltip>
  )
}
