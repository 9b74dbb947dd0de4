import { useHint } from '../../../keys/keymap'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Tooltip from '@mui/material/Tooltip'
import { isEffect, whereSchema, type MaskListRef, type Owner } from '@welkinar/core'
import { SchemaNumber } from '../../controls/SchemaNumber'
import { changeOwner, chosenMask, useScene } from '../../../scene/sceneStore'
import type { MaskScope, MaskView } from '../../../scene/viewState'
import { ink } from '../../../theme'
import { startingEffect } from '../../actions/startingControls'
import { AddMask } from './AddMask'
import { MaskEditor } from './MaskEditor'
import { MaskList } from './MaskList'
import { useSource } from '../../../scene/openSceneContext'

interface WhereStepProps {
  readonly owner: Owner
}

const views: readonly { readonly value: MaskView; readonly label: string }[] = [
  { value: 'off', label: 'Picture' },
  { value: 'grey', label: 'Grey' },
  { value: 'hatch', label: 'Hatch' },
]

const scopes: readonly { readonly value: MaskScope; readonly label: string }[] = [
  { value: 'all', label: 'All' },
  { value: 'one', label: 'One' },
]

/** Where the effect may be: how the mask is seen, the list of masks, and the one that is being edited. */
export function WhereStep({ owner }: WhereStepProps) {
  const source = useSource()
  const chosenId = useScene((state) => state.chosenMaskId)
  const list: MaskListRef = { owner: owner.id, list: 'where' }
  const { masks, hold } = owner.where
  const chosen = chosenMask(owner.where, chosenId, source.shared)
  const startingHold = isEffect(owner) ? startingEffect(owner, source.photo).where.hold : 100
  return (
    <>
      <MaskViewChoice hasMasks={masks.length > 0} />
      {masks.length > 0 ? (
        <MaskList list={list} chosen={chosen} />
      ) : (
        <Box sx={{ color: ink.secondary }}>No mask: the effect is everywhere.</Box>
      )}
      <AddMask list={list} />
      {masks.length > 0 && (
        <SchemaNumber
          schema={whereSchema.shape.hold}
          value={hold}
          start={startingHold}
          onChange={(value, gesture) =>
            changeOwner(owner.id, 'Hold', (one) => void (one.where.hold = value), gesture && `${owner.id} hold ${gesture}`)
          }
        />
      )}
      {chosen && <MaskEditor key={chosen.id} list={list} mask={chosen} />}
    </>
  )
}

/** How the masks of the list that is edited are seen. */
export function MaskViewChoice({ hasMasks }: { readonly hasMasks: boolean }) {
  const maskView = useScene((state) => state.maskView)
  const maskScope = useScene((state) => state.maskScope)
  const { set } = useScene.getState()
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Show"
        value={maskView}
        onChange={(_, next: MaskView | null) => next && set({ maskView: next })}
      >
        {views.map(({ value, label }) => (
          <ToggleButton key={value} value={value} sx={{ px: '6px' }}>
            {label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Which masks are shown"
        value={maskScope}
        disabled={maskView === 'off'}
        onChange={(_, next: MaskScope | null) => next && set({ maskScope: next })}
      >
        {scopes.map(({ value, label }) => (
          <ToggleButton key={value} value={value} sx={{ px: '6px' }}>
            {label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box sx={{ flex: 1 }} />
      <Tooltip title={useHint('Held down: the effect without its mask', 'hold-unmasked')}>
        <span>
          <Button
            variant="outlined"
            disabled={!hasMasks}
            aria-label="Hold to see it without its mask"
            onPointerDown={() => set({ holdingUnmasked: true })}
            onPointerUp={() => set({ holdingUnmasked: false })}
            onPointerLeave={() => set({ holdingUnmasked: false })}
            sx={{ px: '6px' }}
          >
            Without
          </Button>
        </span>
      </Tooltip>
    </Box>
  )
}
