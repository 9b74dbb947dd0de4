import {
  AMOUNT_PATH,
  definitionOf,
  limitsOf,
  mixSchema,
  nearestNumber,
  pulledControls,
  readPath,
  schemaAt,
  writePath,
  type Effect,
  type NumberControl,
  type NumberLimits,
  type Size,
} from '@welkinar/core'
import { controlOn } from '../../../common/controlOn'
import { numberText } from '../../../common/numberText'

/** Css px over which a drag turns a control from one end of its track to the other. */
const WHOLE_TRACK = 600

/** A control that a drag at the ring of a correction turns. */
export interface Pulled {
  readonly path: string
  readonly control: NumberControl
  readonly limits: NumberLimits
}

/** The one or two controls of an effect that a drag turns. */
export function pulledOf(effect: Effect, photo: Size): { readonly upDown: Pulled; readonly sideways: Pulled | undefined } {
  const definition = definitionOf(effect.kind)
  const [upDown, sideways] = pulledControls(definition, effect.controls)
  const pulled = (path: string): Pulled => {
    const schema = path === AMOUNT_PATH ? mixSchema.shape.amount : schemaAt(definition.controls, path)
    const control = controlOn(schema, photo, valueAt(effect, path))
    if (!control) throw new Error(`“${path}” is no number.`)
    return { path, control, limits: limitsOf(schema) }
  }
  return { upDown: pulled(upDown), sideways: sideways === undefined ? undefined : pulled(sideways) }
}

/** The value that a drag turns. */
export function valueAt(effect: Effect, path: string): number {
  return readPath(path === AMOUNT_PATH ? effect : effect.controls, path)
}

/** Turns a control of an effect, in place. */
export function turnTo(effect: Effect, { path }: Pulled, value: number): void {
  writePath(path === AMOUNT_PATH ? effect : effect.controls, path, value)
}

/** What a drag of some css px makes of a value. */
export function pulledTo({ control, limits }: Pulled, from: number, px: number): number {
  const [least, most] = control.usual
  return steppedTo({ control, limits }, from + ((most - least) / WHOLE_TRACK) * px)
}

/** The nearest value of a control that its steps reach. */
export function steppedTo({ control: { step }, limits }: Omit<Pulled, 'path'>, value: number): number {
  return nearestNumber(Number((Math.round(value / step) * step).toFixed(4)), limits)
}

/** A control and its value as they are read beside the pointer. */
export function pulledInWords({ control }: Pulled, value: number): string {
  const sign = control.usual[0] < 0 && value >= 0 ? '+' : ''
  return `${control.label} ${sign}${numberText(value, control)}`
}
