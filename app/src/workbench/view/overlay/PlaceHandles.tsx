import { definitionOf, markedPoint, readPath, readWord, writePath, type Effect, type EffectPlace, type SceneMarks } from '@welkinar/core'
import { changeEffect, useScene } from '../../../scene/sceneStore'
import type { ViewPort } from '../../onPhoto/viewPort'
import type { Point } from '../../onPhoto/geometry'
import { Handle } from '../../onPhoto/Handle'

interface PlaceHandlesProps {
  readonly port: ViewPort
  readonly effect: Effect
  readonly marks: SceneMarks
}

/** The places that an effect has on the photo, as far as they count now. One that follows a mark stops following it when it is moved. */
export function PlaceHandles({ port, effect, marks }: PlaceHandlesProps) {
  const { places = [], applies } = definitionOf(effect.kind)
  const { set } = useScene.getState()
  return places
    .filter(({ x }) => applies?.(x, effect.controls) ?? true)
    .map((place) => {
      const at = placeOf(effect, place, marks)
      return (
        <Handle
          key={place.x}
          port={port}
          at={at}
          label={place.label}
          onGrip={(held) => set({ placing: held ? { effectId: effect.id, ...at } : undefined })}
          onMove={(to, gesture) => {
            changeEffect(effect.id, place.label, ({ controls }) => move(controls, place, to), gesture)
            if (useScene.getState().placing) set({ placing: { effectId: effect.id, x: to.x, y: to.y } })
          }}
        />
      )
    })
}

function placeOf({ controls }: Effect, { x, y, follows }: EffectPlace, marks: SceneMarks): Point {
  const marked = follows && markedPoint(marks, readWord(controls, follows) || null)
  return marked || { x: readPath(controls, x), y: readPath(controls, y) }
}

function move(controls: Effect['controls'], { x, y, follows }: EffectPlace, to: Point): void {
  writePath(controls, x, Math.round(to.x))
  writePath(controls, y, Math.round(to.y))
  if (follows) writePath(controls, follows, null)
}
