import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import {
  choiceOf,
  controlOf,
  definitionOf,
  fieldOperations,
  listLimit,
  newFieldStep,
  readPath,
  readWord,
  schemaAt,
  writePath,
  type FieldStep,
  type Size,
} from '@welkinar/core'
import { useState } from 'react'
import { ActionMenu } from '../../../common/ActionMenu'
import { Choice } from '../../../common/Choice'
import { SchemaNumber } from '../../controls/SchemaNumber'
import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { ink, weight } from '../../../theme'
import { TwoColumns } from '../../../common/TwoColumns'

const most = listLimit(schemaAt(definitionOf('customField').controls, 'shape.steps'))?.most ?? 0

type CustomField = EffectOf<'customField'>
type Steps = CustomField['controls']['shape']['steps']

function changeSteps(effect: CustomField, label: string, change: (steps: Steps) => void, gesture?: string): void {
  changeKind('customField', effect.id, label, ({ controls }) => change(controls.shape.steps), gesture)
}

/** What is done to a custom field, from top to bottom; any operation, any number of times, in any order. */
export function FieldSteps({ effect, photo }: { readonly effect: CustomField; readonly photo: Size }) {
  const { steps } = effect.controls.shape
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      {steps.length === 0 && <Box sx={{ color: ink.secondary }}>The field is used as it is. Add what is to be done to it.</Box>}
      {steps.length > 0 && (
        <Box role="list" aria-label="Operations" sx={{ display: 'grid', gap: 2 }}>
          {steps.map((step, index) => (
            <OneStep key={`${index} ${step.kind}`} effect={effect} photo={photo} step={step} index={index} count={steps.length} />
          ))}
        </Box>
      )}
      <AddStep effect={effect} photo={photo} disabled={steps.length >= most} />
    </Box>
  )
}

interface OneStepProps {
  readonly effect: CustomField
  readonly photo: Size
  readonly step: FieldStep
  readonly index: number
  readonly count: number
}

function OneStep({ effect, photo, step, index, count }: OneStepProps) {
  const operation = fieldOperations.find(({ kind }) => kind === step.kind)
  if (!operation) return null
  const start = newFieldStep(step.kind, photo)
  const numbers = Object.keys(step).filter((key) => key !== 'kind' && controlOf(schemaAt(operation.schema, key)))
  const choices = Object.keys(step).flatMap((key) => {
    const choice = key === 'kind' ? undefined : choiceOf(schemaAt(operation.schema, key))
    return choice ? [[key, choice] as const] : []
  })
  const move = (by: -1 | 1) =>
    changeSteps(effect, 'Move an operation', (steps) => {
      const [moved] = steps.splice(index, 1)
      if (moved) steps.splice(index + by, 0, moved)
    })
  return (
    <Box role="listitem" aria-label={operation.label} sx={{ borderLeft: `2px solid ${ink.rule}`, pl: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box sx={{ flex: 1, fontWeight: weight.strong }}>
          <Box component="span" sx={{ color: ink.secondary, mr: 1 }}>
            {index + 1}
          </Box>
          {operation.label}
        </Box>
        <ActionMenu
          label={`More for ${operation.label} ${index + 1}`}
          actions={() => [
            { label: 'Move up', enabled: index > 0, run: () => move(-1) },
            { label: 'Move down', enabled: index < count - 1, run: () => move(1) },
            {
              label: 'Duplicate',
              enabled: count < most,
              run: () => changeSteps(effect, 'Duplicate an operation', (steps) => void steps.splice(index, 0, { ...step })),
            },
            { label: 'Remove', run: () => changeSteps(effect, 'Remove an operation', (steps) => void steps.splice(index, 1)) },
          ]}
        />
      </Box>
      <TwoColumns>
        {choices.map(([key, { label, options }]) => (
          <Choice
            key={key}
            label={label}
            value={readWord(step, key)}
            options={options}
            onChange={(value) => changeSteps(effect, `${operation.label}: ${label}`, (steps) => writePath(steps[index] ?? {}, key, value))}
          />
        ))}
        {numbers.map((key) => (
          <SchemaNumber
            key={key}
            schema={schemaAt(operation.schema, key)}
            value={readPath(step, key)}
            start={Number(readPath(start, key).toFixed(3))}
            onChange={(value, gesture, label) =>
              changeSteps(
                effect,
                `${operation.label}: ${label}`,
                (steps) => writePath(steps[index] ?? {}, key, value),
                gesture && `${effect.id} step ${index} ${key} ${gesture}`,
              )
            }
          />
        ))}
      </TwoColumns>
    </Box>
  )
}

function AddStep({ effect, photo, disabled }: { readonly effect: CustomField; readonly photo: Size; readonly disabled: boolean }) {
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
              changeSteps(effect, `Add ${label}`, (steps) => void steps.push(newFieldStep(kind, photo)))
            }}
          >
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
