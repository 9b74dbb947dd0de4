import { colourSchema, type Effect } from '@welkinar/core'
import { SchemaNumber } from '../controls/SchemaNumber'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { startingEffect } from '../actions/startingControls'

/** How much the light of the scene decides how bright an effect is. */
export function LitControl({ effect }: { readonly effect: Effect }) {
  const photo = useScene((state) => state.history?.scene.photo)
  if (!photo) return null
  return (
    <SchemaNumber
      schema={colourSchema.shape.lit}
      value={effect.colour.lit}
      start={startingEffect(effect, photo).colour.lit}
      onChange={(value, gesture, label) =>
        changeEffect(effect.id, label, (one) => void (one.colour.lit = value), gesture && `${effect.id} lit ${gesture}`)
      }
    />
  )
}
