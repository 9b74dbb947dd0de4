import { controlOf, hardRange, mixSchema, type Effect } from '@welkinar/core'
import { NumberControl } from '../../common/NumberControl'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { startingEffect } from './startingControls'

/** How much of the effect is mixed in. */
export function AmountControl({ effect }: { readonly effect: Effect }) {
  const photo = useScene((state) => state.history?.scene.photo)
  const schema = mixSchema.shape.amount
  const control = controlOf(schema)
  if (!control || !photo) return null
  return (
    <NumberControl
      control={control}
      hard={hardRange(schema)}
      value={effect.mix.amount}
      start={startingEffect(effect, photo).mix.amount}
      onChange={(value, gesture) =>
        changeEffect(effect.id, 'Amount', (one) => void (one.mix.amount = value), gesture && `${effect.id} amount ${gesture}`)
      }
    />
  )
}
