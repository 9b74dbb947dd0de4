import { controlOf, spanOf, type NumberControl, type Size } from '@welkinar/core'

type Schema = Parameters<typeof controlOf>[0]

const known = new WeakMap<Schema, Map<string, NumberControl>>()

/**
 * The control of a number with the track that its slider has on a photo; where the number begins beyond it, it reaches as far. The same object each time, so that nothing is drawn
 * anew for it. Undefined for what has no control.
 */
export function controlOn(schema: Schema, photo: Size | undefined, start: number): NumberControl | undefined {
  const control = controlOf(schema)
  if (!control || !photo) return control
  const [least, most] = spanOf(schema, photo) ?? control.usual
  const usual = [Math.min(least, start), Math.max(most, start)] as const
  const controls = known.get(schema) ?? new Map<string, NumberControl>()
  known.set(schema, controls)
  const key = usual.join(' ')
  const made = controls.get(key) ?? { ...control, usual }
  controls.set(key, made)
  return made
}
