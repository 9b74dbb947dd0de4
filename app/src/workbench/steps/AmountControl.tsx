import { isEffect, mixSchema, type Owner } from '@welkinar/core'
import { SchemaNumber } from '../controls/SchemaNumber'
import { changeOwner, useScene } from '../../scene/sceneStore'
import { startingEffect } from '../actions/startingControls'

/** How much of an effect or group is mixed in. */
export function AmountControl({ owner }: { readonly owner: Owner }) {
  const photo = useScene((state) => state.history?.scene.photo)
  if (!photo) return null
  return (
    <SchemaNumber
      schema={mixSchema.shape.amount}
      value={owner.mix.amount}
      start={isEffect(owner) ? startingEffect(owner, photo).mix.amount : 100}
      onChange={(value, gesture) =>
        changeOwner(owner.id, 'Amount', (one) => void (one.mix.amount = value), gesture && `${owner.id} amount ${gesture}`)
      }
    />
  )
}
