import {
  choiceOf,
  colourLabelOf,
  definitionOf,
  isFollowing,
  limitsOf,
  readPath,
  readWord,
  schemaAt,
  writePath,
  type Effect,
} from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { ColourField } from './ColourField'
import { controlOn } from '../../common/controlOn'
import { NumberControl } from '../../common/NumberControl'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { FollowChoice } from './FollowChoice'
import { startingControls } from '../actions/startingControls'

interface SchemaControlProps {
  readonly effect: Effect
  /** Path into the effect's own controls, such as `shape.length`. */
  readonly path: string
}

/** A control made from the effect's schema: its words, ranges and starting value all come from there. */
export function SchemaControl({ effect, path }: SchemaControlProps) {
  const photo = useScene((state) => state.history?.scene.photo)
  const definition = definitionOf(effect.kind)
  const schema = schemaAt(definition.controls, path)
  const choice = choiceOf(schema)
  if (isFollowing(schema)) return <FollowChoice effect={effect} path={path} />
  if (choice) {
    return (
      <Choice
        label={choice.label}
        value={readWord(effect.controls, path)}
        options={choice.options}
        onChange={(value) => changeEffect(effect.id, `${definition.label}: ${choice.label}`, (one) => writePath(one.controls, path, value))}
      />
    )
  }
  const colour = colourLabelOf(schema)
  if (colour) {
    return (
      <ColourField
        label={colour}
        shown
        value={readWord(effect.controls, path)}
        onChange={(hex, gesture) =>
          changeEffect(
            effect.id,
            `${definition.label}: ${colour}`,
            (one) => writePath(one.controls, path, hex),
            gesture && `${effect.id} ${path}`,
          )
        }
      />
    )
  }
  if (!photo) return null
  const start = readPath(startingControls(effect, photo), path)
  const control = controlOn(schema, photo, start)
  if (!control) return null
  return (
    <NumberControl
      control={control}
      limits={limitsOf(schema)}
      value={readPath(effect.controls, path)}
      start={Number(start.toFixed(control.step < 0.01 ? 4 : 3))}
      onChange={(value, gesture) =>
        changeEffect(
          effect.id,
          `${definition.label}: ${control.label}`,
          (one) => writePath(one.controls, path, value),
          gesture && `${effect.id} ${path} ${gesture}`,
        )
      }
    />
  )
}
