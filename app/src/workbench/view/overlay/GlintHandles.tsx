import Box from '@mui/material/Box'
import type { Effect, SparkleControls } from '@welkinar/core'
import { useRef } from 'react'
import { changeEffect } from '../../../scene/sceneStore'
import type { ViewPort } from '../viewPort'
import { limited, pointerPlace, toPhoto, type Point } from './geometry'
import { Handle } from './Handle'

interface GlintProps {
  readonly port: ViewPort
  readonly effect: Effect
}

/** More handles than these would hide the photo; the glints themselves are all drawn. */
const MOST_HANDLES = 60
const MOST_PLACES = 400

/** The places of glints that were placed one by one. */
export function placedGlints({ kind, controls }: Effect): SparkleControls['pattern']['places'] {
  const pattern = controls.pattern as SparkleControls['pattern']
  return kind === 'sparkles' && pattern.by === 'placed' ? pattern.places : []
}

function changeGlints(
  effect: Effect,
  label: string,
  change: (places: SparkleControls['pattern']['places']) => void,
  gesture?: string,
): void {
  changeEffect(effect.id, label, ({ controls }) => change((controls.pattern as SparkleControls['pattern']).places), gesture)
}

export function GlintHandles({ port, effect }: GlintProps) {
  return placedGlints(effect)
    .slice(0, MOST_HANDLES)
    .map((place, index) => {
      const remove = () => changeGlints(effect, 'Remove a glint', (places) => void places.splice(index, 1))
      return (
        <Handle
          key={index}
          port={port}
          at={place}
          look="side"
          label={`Glint ${index + 1}`}
          onMove={(to, gesture) => changeGlints(effect, 'Move a glint', (places) => void Object.assign(places[index] ?? {}, to), gesture)}
          onDoubleClick={remove}
          onRemove={remove}
        />
      )
    })
}

/** Takes taps on the photo: each puts a glint there. */
export function GlintSurface({ port, effect }: GlintProps) {
  const down = useRef<Point>(undefined)
  return (
    <Box
      data-testid="glint surface"
      onPointerDown={(event) => {
        event.stopPropagation()
        down.current = pointerPlace(event, event.currentTarget)
      }}
      onPointerUp={(event) => {
        const from = down.current
        down.current = undefined
        const place = pointerPlace(event, event.currentTarget)
        if (!from || Math.hypot(place.x - from.x, place.y - from.y) > 8) return
        changeGlints(effect, 'Place a glint', (places) => {
          if (places.length < MOST_PLACES) places.push({ ...limited(toPhoto(port, place)), size: 100 })
        })
      }}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
    />
  )
}
