import {
  controlOf,
  definitionOf,
  limitsOf,
  maskDefinitionOf,
  maskSchemaOf,
  nearestNumber,
  schemaAt,
  type Effect,
  type Mask,
  type MaskListRef,
  type PatternBox,
  type Placed,
} from '@welkinar/core'
import { digitsOf } from '../../../common/NumberField'
import { changeEffect, changeMask } from '../../../scene/sceneStore'
import { readPath, writePath } from '../../steps/paths'
import type { ViewPort } from '../viewPort'
import { BoxHandles } from './BoxHandles'
import { angleOf, atAngle, pathThrough } from './geometry'
import { GuideLine, Handle } from './Handle'

/** Css px. */
const ARROW = 90

interface EffectPatternProps {
  readonly port: ViewPort
  readonly effect: Effect
}

/** The box and the arrow of an effect whose pattern has no place of its own. */
export function EffectPatternHandles({ port, effect }: EffectPatternProps) {
  const { box, direction, controls, label, applies } = definitionOf(effect.kind)
  return (
    <>
      {box && (
        <BoxHandles
          key={effect.id}
          port={port}
          name={`the ${label.toLowerCase()}`}
          placed={placedIn(effect.controls, box)}
          onChange={(words, placed, gesture) =>
            changeEffect(
              effect.id,
              words,
              (one) => {
                for (const key of keys) writePath(one.controls, box[key], kept(placed[key], schemaAt(controls, box[key])))
              },
              gesture && `${effect.id} ${gesture}`,
            )
          }
        />
      )}
      {direction && (applies?.(direction.path, effect.controls) ?? true) && <DirectionHandle port={port} effect={effect} />}
    </>
  )
}

interface MaskPatternProps {
  readonly port: ViewPort
  readonly list: MaskListRef
  readonly mask: Mask
}

/** The box of a mask that is a pattern without a place of its own. */
export function MaskPatternHandles({ port, list, mask }: MaskPatternProps) {
  const { box, label } = maskDefinitionOf(mask.kind)
  if (!box) return null
  const schema = maskSchemaOf(mask.kind)
  return (
    <BoxHandles
      key={mask.id}
      port={port}
      name={`the ${label.toLowerCase()}`}
      placed={placedIn(mask, box)}
      onChange={(words, placed, gesture) =>
        changeMask(
          list,
          mask,
          words,
          (target) => {
            for (const key of keys) writePath(target, box[key], kept(placed[key], schemaAt(schema, box[key])))
          },
          gesture,
        )
      }
    />
  )
}

const keys = ['x', 'y', 'size', 'stretch', 'turn'] as const

function placedIn(values: object, box: PatternBox): Placed {
  return Object.fromEntries(keys.map((key) => [key, readPath(values, box[key])])) as unknown as Placed
}

/** A number as it is shown, so that what is typed is what was moved. */
function kept(value: number, schema: Parameters<typeof limitsOf>[0]): number {
  return nearestNumber(Number(value.toFixed(digitsOf(controlOf(schema)?.step ?? 0))), limitsOf(schema))
}

/** An arrow from the middle of the view in the direction in which the pattern moves. */
function DirectionHandle({ port, effect }: EffectPatternProps) {
  const { direction, controls } = definitionOf(effect.kind)
  if (!direction) return null
  const middle = { x: port.centreX, y: port.centreY }
  const tip = atAngle(middle, ARROW / port.zoom, direction.arrow(readPath(effect.controls, direction.path)))
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
              const value = direction.value(Math.round(2 * angleOf(middle, to)) / 2)
              writePath(one.controls, direction.path, kept(value, schemaAt(controls, direction.path)))
            },
            gesture && `${effect.id} direction ${gesture}`,
          )
        }
      />
    </>
  )
}
