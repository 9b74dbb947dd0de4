import { definitionOf, type Effect } from '@welkinar/core'
import { changeEffect } from '../../../scene/sceneStore'
import { readPath, writePath } from '../../steps/paths'
import type { ViewPort } from '../viewPort'
import { Handle } from './Handle'

interface PlaceHandlesProps {
  readonly port: ViewPort
  readonly effect: Effect
}

/** The places that an effect has on the photo, as far as they count now. */
export function PlaceHandles({ port, effect }: PlaceHandlesProps) {
  const { places = [], applies } = definitionOf(effect.kind)
  return places
    .filter(({ x }) => applies?.(x, effect.controls) ?? true)
    .map(({ label, x, y }) => (
      <Handle
        key={x}
        port={port}
        at={{ x: readPath(effect.controls, x), y: readPath(effect.controls, y) }}
        label={label}
        onMove={(to, gesture) =>
          changeEffect(
            effect.id,
            label,
            (one) => {
              writePath(one.controls, x, Math.round(to.x))
              writePath(one.controls, y, Math.round(to.y))
            },
            gesture,
          )
        }
      />
    ))
}
