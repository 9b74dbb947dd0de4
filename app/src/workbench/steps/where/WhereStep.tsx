import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { controlOf, hardRange, whereSchema, type Effect, type Mask, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useState } from 'react'
import { NumberControl } from '../../../common/NumberControl'
import { changeEffect, useScene, type MaskView } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { startingEffect } from '../startingControls'
import { MaskEditor } from './MaskEditor'
import { MaskRow } from './MaskRow'

interface WhereStepProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect
}

const views: readonly { readonly value: MaskView; readonly label: string }[] = [
  { value: 'off', label: 'Picture' },
  { value: 'grey', label: 'Grey' },
  { value: 'hatch', label: 'Hatch' },
]

/** Where the effect may be: the list of masks, how it is seen, and the mask that is being edited. */
export function WhereStep({ pool, source, effect }: WhereStepProps) {
  const maskView = useScene((state) => state.maskView)
  const { masks, hold } = effect.where
  const [chosenId, setChosenId] = useState(masks[0]?.id)
  const chosen = masks.find(({ id }) => id === chosenId) ?? masks[0]
  const holdControl = controlOf(whereSchema.shape.hold)
  const add = () => {
    const mask = freshMask(masks.length > 0)
    changeEffect(effect.id, 'Add mask', (one) => void one.where.masks.push(mask))
    setChosenId(mask.id)
  }
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <Box id="mask-view">Show</Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-labelledby="mask-view"
          value={maskView}
          onChange={(_, next: MaskView | null) => next && useScene.getState().set({ maskView: next })}
        >
          {views.map(({ value, label }) => (
            <ToggleButton key={value} value={value}>
              {label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      {chosen && <MaskEditor pool={pool} source={source} effect={effect} mask={chosen} />}
      <Box sx={{ borderTop: `1px solid ${ink.rule}`, pt: 2 }}>
        {masks.length > 0 && (
          <Box role="list" aria-label="Masks">
            {masks.map((mask, index) => (
              <MaskRow
                key={mask.id}
                effect={effect}
                mask={mask}
                index={index}
                chosen={mask === chosen}
                onChoose={() => setChosenId(mask.id)}
              />
            ))}
          </Box>
        )}
        {masks.length === 0 && <Box sx={{ color: ink.secondary, mb: 1 }}>No mask: the effect is everywhere.</Box>}
        <Button variant="outlined" onClick={add} sx={{ mt: 1 }} disabled={masks.length >= 32}>
          Add a luminosity mask
        </Button>
      </Box>
      {holdControl && masks.length > 0 && (
        <NumberControl
          control={holdControl}
          hard={hardRange(whereSchema.shape.hold)}
          value={hold}
          start={startingEffect(effect, source.photo).where.hold}
          onChange={(value, gesture) =>
            changeEffect(effect.id, 'Hold', (one) => void (one.where.hold = value), gesture && `${effect.id} hold ${gesture}`)
          }
        />
      )}
    </>
  )
}

function freshMask(subtract: boolean): Mask {
  return {
    id: crypto.randomUUID(),
    kind: 'luminosity',
    on: true,
    join: subtract ? 'subtract' : 'keep',
    invert: false,
    strength: 100,
    feather: 0,
    tonesFrom: 'photo',
    channel: 'encodedLuma',
    curve: 'brights',
    handles: [0, 1, 1, 1],
    steepness: 0,
  }
}
