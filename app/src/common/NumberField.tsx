import Box from '@mui/material/Box'
import Tooltip from '@mui/material/Tooltip'
import { nearestNumber, numberProblem, type NumberLimits } from '@welkinar/core'
import { useId, useState, type KeyboardEvent } from 'react'
import { keysGesture } from './keysGesture'
import { ink } from '../theme'

interface NumberFieldProps {
  /** Id of the element that names it, or its name where none is shown. */
  readonly labelledBy?: string
  readonly label?: string
  readonly value: number
  readonly limits: NumberLimits
  readonly step: number
  readonly unit: string
  /** @param gesture names what is one step for undo */
  onChange(value: number, gesture?: string): void
}

/** Types a number: Enter or leaving takes it, Escape drops it, arrow keys step (Shift × 10). Says why a number cannot be taken. */
export function NumberField({ labelledBy, label, value, limits, step, unit, onChange }: NumberFieldProps) {
  const [typed, setTyped] = useState<string>()
  const id = useId()
  const problem = typed === undefined ? undefined : numberProblem(parse(typed), limits)
  const take = () => {
    if (typed !== undefined && !problem) onChange(parse(typed))
    setTyped(undefined)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && !problem) take()
    else if (event.key === 'Escape') setTyped(undefined)
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault()
      const by = (event.key === 'ArrowUp' ? step : -step) * (event.shiftKey ? 10 : 1)
      setTyped(undefined)
      onChange(Number(nearestNumber(value + by, limits).toFixed(4)), keysGesture(id))
    }
  }
  const shown = `${format(value, step)}${spaced(unit)}`
  const text = typed ?? shown
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
          '&:focus': { background: '#fff' },
        }}
      />
    </Tooltip>
  )
}

/** The number at the beginning of what was typed; a unit may follow. NaN if there is none. */
function parse(text: string): number {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+))\s*[a-z%°×/]*\s*$/i.exec(text.replace(',', '.').replace('−', '-'))
  return match ? Number(match[1]) : NaN
}

/** Degrees and factors stand close to the number, other units after a thin space. */
function spaced(unit: string): string {
  return unit === '' || unit === '°' || unit === '×' ? unit : `\u2009${unit}`
}

/** How many digits after the point a number with such a step is shown with. */
export function digitsOf(step: number): number {
  return step >= 1 ? 0 : step >= 0.1 ? 1 : step >= 0.01 ? 2 : 4
}

/** From here on what comes after the point is not read, and has no room. */
const LARGE = 1000

function format(value: number, step: number): string {
  const digits = Math.abs(value) >= LARGE ? 0 : step >= 1 && !Number.isInteger(value) ? 1 : digitsOf(step)
  return value.toFixed(digits).replace('-', '−')
}
