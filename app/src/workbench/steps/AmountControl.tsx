import { controlOf, limitsOf, isEffect, mixSchema, type Owner } from '@welkinar/core'
import { NumberControl } from '../../common/NumberControl'
import { changeOwner, useScene } from '../../scene/sceneStore'
import { startingEffect } from './startingControls'

/** How much of an effect or group is mixed in. */
export function AmountControl({ owner }: { readonly owner: Owner }) {
  const photo = useScene((state) => state.history?.scene.photo)
  const schema = mixSchema.shape.amount
  const control = controlOf(schema)
  if (!control || !photo) return null
  return (
    <NumberControl
      control={control}
      limits={limitsOf(schema)}
      value={owner.mix.amount}
      start={isEffect(owner) ? startingEffect(owner, photo).mix.amount : 100}
      onChange={(value, gesture) =>
        changeOwner(owner.id, 'Amount', (one) => void (one.mix.amount = value), gesture && `${owner.id} amount ${gesture}`)
      }
    />
  )
}
