import { evenFit, fitLengths, lengthFactor } from '../model/lengths'
import { whereSchema, type DepthPlace } from '../model/look'
import { horizonOf, type SceneMarks } from '../model/marks'
import type { Size } from '../planes/grid'
import type { EffectDefinition } from './effectDefinition'
import { definitionOf, effectSchema, type Effect, type EffectKind } from './registry'

interface NewEffectOptions {
  readonly kind: EffectKind
  /** Name of one of the kind's starting looks; the first if not given. */
  readonly look?: string
  readonly place?: DepthPlace
  /** What is marked or read in the photo: what shines begins at its light. */
  readonly marks?: SceneMarks
  /** Own id of the effect. */
  readonly id: string
}

/** An effect with its starting values, lengths fitted to the photo. @throws Error if the kind or the look does not exist */
export function newEffect(photo: Size, options: NewEffectOptions): Effect {
  const definition = definitionOf(options.kind)
  const look = options.look ? definition.startingLooks.find(({ name }) => name === options.look) : definition.startingLooks[0]
  if (!look) throw new Error(`${definition.label} has no starting look named “${options.look}”.`)
  const fit = evenFit(lengthFactor(photo))
  const made = effectSchema.parse({
    id: options.id,
    kind: definition.kind,
    name: look.name,
    on: true,
    place: options.place ?? definition.place,
    controls: fitLengths(definition.controls, look.controls, fit),
    group: null,
    colour: look.colour,
    where: fitLengths(whereSchema, look.where, fit),
    region: look.region ? fitLengths(whereSchema, look.region, fit) : null,
    mix: look.mix,
  })
  return options.marks ? atItsLight(made, definition, photo, options.marks) : made
}

/** What follows a light begins at the first that is marked, or where one was read; without one above the horizon. */
function atItsLight(effect: Effect, { startsAtLight, places = [] }: EffectDefinition, photo: Size, marks: SceneMarks): Effect {
  const place = places.find(({ follows }) => follows)
  if (!place?.follows || !startsAtLight?.(effect.controls as never)) return effect
  const controls = effect.controls.pattern as Record<string, unknown>
  const [x, y, follows] = [place.x, place.y, place.follows].map((path) => path.replace(/^pattern\./, '')) as [string, string, string]
  const read = marks.reading?.light
  const horizon = horizonOf(marks)
  if (marks.lights[0]) controls[follows] = marks.lights[0].id
  else if (read) Object.assign(controls, { [x]: read.x, [y]: read.y })
  else if (horizon) controls[y] = Math.min(controls[y] as number, horizon.y - ABOVE_HORIZON * photo.height)
  return effect
}

const ABOVE_HORIZON = 0.08
