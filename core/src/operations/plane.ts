import type { Value } from '../planes/value'

/** Address of one plane of a value. @throws RangeError if it has no such plane */
export function plane(value: Value | undefined, index: number): number {
  const address = value?.planes[index]
  if (address === undefined) throw new RangeError(`Plane ${index} was asked of a ${value?.kind ?? 'missing value'}.`)
  return address
}

/** The input at `index`. @throws RangeError if it is missing */
export function inputAt(inputs: readonly Value[], index: number): Value {
  const input = inputs[index]
  if (!input) throw new RangeError(`Input ${index} is missing; ${inputs.length} came.`)
  return input
}
