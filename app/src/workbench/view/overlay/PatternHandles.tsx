import {
  controlOf,
  definitionOf,
  limitsOf,
  maskDefinitionOf,
  maskSchemaOf,
  nearestNumber,
  readPath,
  schemaAt,
  writePath,
  type BoxScene,
  type Effect,
  type Mask,
  type MaskListRef,
  type PatternBox,
  type Placed,
} from '@welkinar/core'
import { digitsOf } from '../../../common/numberText'
import { changeEffect, changeMask } from '../../../scene/sceneStore'
import type { ViewPort } from '../../onPhoto/viewPort'
import { BoxHandles } from '../../onPhoto/BoxHandles'
import { angleOf, atAngle, pathThrough } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'

/** Css px. */
const ARROW = 90

interface EffectPatternProps {
  readonly port: ViewPort
  readonly effect: Effect
  readonly scene: BoxScene
  /** By how much the photo is turned to stand upright: directions are those of the turned picture. */
  readonly turn: number
}

/** The box and the arrow of an effect whose pattern has no place of its own. */
export function EffectPatternHandles({ port, effect, scene, turn }: EffectPatternProps) {
  const { box, direction, controls, label, applies } = definitionOf(effect.kind)
  const placed = box?.read(effect.controls as never, scene)
  return (
    <>
      {box && placed && (
        <BoxHandles
          key={effect.id}
          port={port}
          name={`the ${label.toLowerCase()}`}
          placed={placed}
          lacks={box.lacks}
          onChange={(words, next, gesture) =>
            changeEffect(effect.id, words, (one) => place(box, controls, one.controls, next, scene), gesture && `${effect.id} ${gesture}`)
          }
        />
      )}
      {direction && (applies?.(direction.path, effect.controls) ?? true) && <DirectionHandle port={port} effect={effect} turn={turn} />}
    </>
  )
}

interface MaskPatternProps {
  readonly port: ViewPort
  readonly list: MaskListRef
  readonly mask: Mask
  readonly scene: BoxScene
}

/** The box of a mask that is a pattern without a place of its own. */
export function MaskPatternHandles({ port, list, mask, scene }: MaskPatternProps) {
  const { box, label } = maskDefinitionOf(mask.kind)
  const placed = box?.read(mask as never, scene)
  if (!box || !placed) return null
  const schema = maskSchemaOf(mask.kind)
  return (
    <BoxHandles
      key={mask.id}
      port={port}
      name={`the ${label.toLowerCase()}`}
      placed={placed}
      lacks={box.lacks}
      onChange={(words, next, gesture) => changeMask(list, mask, words, (target) => place(box, schema, target, next, scene), gesture)}
    />
  )
}

/** Writes where a pattern lies, in numbers as they are shown, so that what is typed is what was moved. */
function place(box: PatternBox, schema: Parameters<typeof schemaAt>[0], values: object, placed: Placed, scene: BoxScene): void {
  box.write(values as never, placed, scene)
  for (const path of box.paths) writePath(values, path, kept(readPath(values, path), schemaAt(schema, path)))
}

function kept(value: number, schema: Parameters<typeof limitsOf>[0]): number {
  return nearestNumber(Number(value.toFixed(digitsOf(controlOf(schema)?.step ?? 0))), limitsOf(schema))
}

/** An arrow from the middle of the view in the direction in which the pattern moves. */
function DirectionHandle({ port, effect, turn }: Omit<EffectPatternProps, 'scene'>) {
  const { direction, controls } = definitionOf(effect.kind)
  if (!direction) return null
  const middle = { x: port.centreX, y: port.centreY }
  const tip = atAngle(middle, ARROW / port.zoom, direction.arrow(readPath(effect.controls, direction.path)) - turn)
  return (
    <>
      <GuideLine d={pathThrough(port, [middle, tip])} />
      <Handle
        port={port}
        at={tip}
        look="side"
        label={direction.label}
        onMove={(to, gesture) =>
          changeEffect(
            effect.id,
            direction.label,
            (one) => {
              const value = direction.value(Math.round(2 * (angleOf(middle, to) + turn)) / 2)
              writePath(one.controls, direction.path, kept(value, schemaAt(controls, direction.path)))
            },
            gesture && `${effect.id} direction ${gesture}`,
          )
        }
      />
    </>
  )
}
