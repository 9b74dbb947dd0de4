import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import Slider from '@mui/material/Slider'
import Tooltip from '@mui/material/Tooltip'
import type { NumberControl as Control, NumberLimits } from '@welkinar/core'
import { memo, useCallback, useId, useLayoutEffect, useMemo, useRef } from 'react'
import { ink } from '../theme'
import { keysGesture } from './keysGesture'
import { NumberField } from './NumberField'
import { numberText } from './numberText'

export interface NumberControlProps {
  readonly control: Control
  /** What can be typed. */
  readonly limits: NumberLimits
  readonly value: number
  /** What the mark beside a changed value goes back to. */
  readonly start: number
  /** `gesture` names a drag, whose changes are one step for undo. */
  onChange(value: number, gesture?: string): void
}

/** A number with its words: slider over the usual range, field for the hard range, mark that resets. Drawn anew only when its number changes. */
export function NumberControl({ limits, onChange, ...shown }: NumberControlProps) {
  const { least, most, whole } = limits
  const same = useMemo(() => ({ least, most, whole }), [least, most, whole])
  const latest = useRef(onChange)
  useLayoutEffect(() => {
    latest.current = onChange
  })
  const change = useCallback<NumberControlProps['onChange']>((value, gesture) => latest.current(value, gesture), [])
  return <NumberRow {...shown} limits={same} onChange={change} />
}

const NumberRow = memo(function NumberRow({ control, limits, value, start, onChange }: NumberControlProps) {
  const id = useId()
  const [least, most] = control.usual
  // Starting values are rounded; what is closer than a person can set it is the same.
  const changed = Math.abs(value - start) > control.step / 20
  return (
    <Box sx={{ minWidth: 0, alignSelf: 'end' }}>
      <Box sx={{ display: 'flex', alignItems: 'last baseline', gap: '2px' }}>
        <Tooltip describeChild title={control.hint ?? ''} placement="left">
          <Box component="label" id={id} sx={{ flex: 1, minWidth: 0, pr: '4px', lineHeight: 1.2 }}>
            {control.label}
          </Box>
        </Tooltip>
        {changed && (
          <Tooltip title={`Back to ${numberText(start, control)}`}>
            <ButtonBase
              aria-label={`Reset ${control.label} to ${numberText(start, control)}`}
              onClick={() => onChange(start)}
              sx={{ width: 24, height: 24, m: '-7px -9px -1px -7px', alignSelf: 'end' }}
            >
              <Box sx={{ width: 6, height: 6, borderRadius: '50%', bgcolor: ink.accent }} />
            </ButtonBase>
          </Tooltip>
        )}
        <NumberField labelledBy={id} value={value} limits={limits} control={control} onChange={onChange} />
      </Box>
      <Slider
        aria-labelledby={id}
        min={least}
        max={most}
        step={control.step}
        value={Math.min(most, Math.max(least, value))}
        onChange={(event, next) =>
          onChange(next as number, event.type === 'keydown' ? keysGesture(id) : `${control.label} drag ${gestureNumber}`)
        }
        onChangeCommitted={() => gestureNumber++}
      />
    </Box>
  )
})

/** Counts finished drags, so that each has a name of its own. */
let gestureNumber = 0
