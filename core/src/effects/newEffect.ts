import { evenFit, fitLengths, lengthFactor } from '../model/lengths'
import { whereSchema, type DepthPlace } from '../model/look'
import type { Size } from '../planes/grid'
import { definitionOf, effectSchema, type Effect, type EffectKind } from './registry'

interface NewEffectOptions {
  readonly kind: EffectKind
  /** Name of one of the kind's starting looks; the first if not given. */
  readonly look?: string
  readonly place?: DepthPlace
  /** Own id of the effect. */
  readonly id: string
}

/** An effect with its starting values, lengths fitted to the photo. @throws Error if the kind or the look does not exist */
export function newEffect(photo: Size, options: NewEffectOptions): Effect {
  const definition = definitionOf(options.kind)
  const look = options.look ? definition.startingLooks.find(({ name }) => name === options.look) : definition.startingLooks[0]
  if (!look) throw new Error(`${definition.label} has no starting look named “${options.look}”.`)
  const fit = evenFit(lengthFactor(photo))
  return effectSchema.parse({
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
}
