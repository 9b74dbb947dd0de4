import { colourSchema, controlOf, limitsOf, type Effect } from '@welkinar/core'
import { NumberControl } from '../../common/NumberControl'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { startingEffect } from './startingControls'

/** How much the light of the scene decides how bright an effect is. */
export function LitControl({ effect }: { readonly effect: Effect }) {
  const photo = useScene((state) => state.history?.scene.photo)
  const schema = colourSchema.shape.lit
  const control = controlOf(schema)
  if (!control || !photo) return null
  return (
    <NumberControl
      control={control}
      limits={limitsOf(schema)}
      value={effect.colour.lit}
      start={startingEffect(effect, photo).colour.lit}
      onChange={(value, gesture) =>
        changeEffect(effect.id, control.label, (one) => void (one.colour.lit = value), gesture && `${effect.id} lit ${gesture}`)
      }
    />
  )
}
