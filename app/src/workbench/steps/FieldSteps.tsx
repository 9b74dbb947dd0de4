import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import {
  controlOf,
  fieldOperations,
  fitBetween,
  hardRange,
  schemaAt,
  type CustomFieldControls,
  type Effect,
  type FieldStep,
  type Size,
} from '@welkinar/core'
import { useState } from 'react'
import { ActionMenu } from '../../common/ActionMenu'
import { NumberControl } from '../../common/NumberControl'
import { changeEffect } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { readPath, writePath } from './paths'

const MOST_STEPS = 24
/** Starting lengths are for a photo of this size. */
const REFERENCE: Size = { width: 3000, height: 2000 }

type Steps = CustomFieldControls['shape']['steps']

function stepsOf(effect: Effect): Steps {
  return effect.kind === 'customField' ? (effect.controls.shape as CustomFieldControls['shape']).steps : []
}

function changeSteps(effect: Effect, label: string, change: (steps: Steps) => void, gesture?: string): void {
  changeEffect(effect.id, label, ({ controls }) => change((controls.shape as CustomFieldControls['shape']).steps), gesture)
}

/** What is done to a custom field, from top to bottom; any operation, any number of times, in any order. */
export function FieldSteps({ effect, photo }: { readonly effect: Effect; readonly photo: Size }) {
  if (effect.kind !== 'customField') return null
  const steps = stepsOf(effect)
  return (
    <Box role="list" aria-label="Operations" sx={{ display: 'grid', gap: 2 }}>
      {steps.length === 0 && <Box sx={{ color: ink.secondary }}>The field is used as it is. Add what is to be done to it.</Box>}
      {steps.map((step, index) => (
        <OneStep key={`${index} ${step.kind}`} effect={effect} photo={photo} step={step} index={index} count={steps.length} />
      ))}
      <AddStep effect={effect} photo={photo} disabled={steps.length >= MOST_STEPS} />
    </Box>
  )
}

interface OneStepProps {
  readonly effect: Effect
  readonly photo: Size
  readonly step: FieldStep
  readonly index: number
  readonly count: number
}

function OneStep({ effect, photo, step, index, count }: OneStepProps) {
  const operation = fieldOperations.find(({ kind }) => kind === step.kind)
  if (!operation) return null
  const start = startOf(step.kind, photo)
  const numbers = Object.keys(step).filter((key) => key !== 'kind')
  const move = (by: -1 | 1) =>
    changeSteps(effect, 'Move an operation', (steps) => {
      const [moved] = steps.splice(index, 1)
      if (moved) steps.splice(index + by, 0, moved)
    })
  return (
    <Box role="listitem" aria-label={operation.label} sx={{ borderLeft: `2px solid ${ink.rule}`, pl: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box sx={{ flex: 1, fontWeight: 650 }}>
          <Box component="span" sx={{ color: ink.secondary, mr: 1 }}>
            {index + 1}
          </Box>
          {operation.label}
        </Box>
        <ActionMenu
          label={`More for ${operation.label} ${index + 1}`}
          actions={[
            { label: 'Move up', enabled: index > 0, run: () => move(-1) },
            { label: 'Move down', enabled: index < count - 1, run: () => move(1) },
            {
              label: 'Duplicate',
              enabled: count < MOST_STEPS,
              run: () => changeSteps(effect, 'Duplicate an operation', (steps) => void steps.splice(index, 0, { ...step })),
            },
            { label: 'Remove', run: () => changeSteps(effect, 'Remove an operation', (steps) => void steps.splice(index, 1)) },
          ]}
        />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }}>
        {numbers.map((key) => {
          const schema = schemaAt(operation.schema, key)
          const control = controlOf(schema)
          return (
            control && (
              <NumberControl
                key={key}
                control={control}
                hard={hardRange(schema)}
                value={readPath(step, key)}
                start={Number(readPath(start, key).toFixed(3))}
                onChange={(value, gesture) =>
                  changeSteps(
                    effect,
                    `${operation.label}: ${control.label}`,
                    (steps) => writePath(steps[index] ?? {}, key, value),
                    gesture && `${effect.id} step ${index} ${key} ${gesture}`,
                  )
                }
              />
            )
          )
        })}
      </Box>
    </Box>
  )
}

/** An operation as it starts, its lengths fitted to the photo. */
function startOf(kind: FieldStep['kind'], photo: Size): FieldStep {
  const operation = fieldOperations.find((one) => one.kind === kind)
  if (!operation) throw new Error(`There is no operation “${kind}”.`)
  const step: Record<string, string | number> = { kind, ...operation.start }
  const fit = fitBetween(REFERENCE, photo)
  for (const [key, value] of Object.entries(step)) {
    const measures = typeof value === 'number' ? controlOf(schemaAt(operation.schema, key))?.measures : undefined
    if (measures && typeof value === 'number') step[key] = Number((value * fit[measures]).toFixed(2))
  }
  return step as FieldStep
}

function AddStep({ effect, photo, disabled }: { readonly effect: Effect; readonly photo: Size; readonly disabled: boolean }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        disabled={disabled}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ justifySelf: 'start' }}
      >
        Add an operation
      </Button>
      <Menu open={anchor !== undefined} anchorEl={anchor ?? null} onClose={() => setAnchor(undefined)}>
        {fieldOperations.map(({ kind, label }) => (
          <MenuItem
            key={kind}
            onClick={() => {
              setAnchor(undefined)
              changeSteps(effect, `Add ${label}`, (steps) => void steps.push(startOf(kind, photo)))
            }}
          >
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
