import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { evenFit, fitLengths, lengthFactor } from '../../model/lengths'
import type { Size } from '../../planes/grid'
import { blur, halo, highPass, maximum, minimum, motion, spin, zoom } from './operations/blurs'
import { fade, fork, line, round } from './operations/fades'
import type { Centre, FieldOperation } from './operations/fieldOperation'
import { place, polar } from './operations/geometry'
import { bent, second } from './operations/noise'
import { curve, invert, levels } from './operations/tones'

/** What can be done to a field, in the order in which it is offered. */
export const fieldOperations = [
  blur,
  motion,
  zoom,
  spin,
  maximum,
  minimum,
  levels,
  curve,
  polar,
  place,
  second,
  bent,
  fork,
  line,
  halo,
  highPass,
  invert,
  fade,
  round,
] as const

export const fieldOperationSchema = z.discriminatedUnion('kind', [
  blur.schema,
  motion.schema,
  zoom.schema,
  spin.schema,
  maximum.schema,
  minimum.schema,
  levels.schema,
  curve.schema,
  polar.schema,
  place.schema,
  second.schema,
  bent.schema,
  fork.schema,
  line.schema,
  halo.schema,
  highPass.schema,
  invert.schema,
  fade.schema,
  round.schema,
])
export type FieldStep = z.infer<typeof fieldOperationSchema>

/** One step done to a field. */
export function applyStep(field: GraphNode, step: FieldStep, centre: Centre): GraphNode {
  const found = fieldOperations.find(({ kind }) => kind === step.kind) as unknown as FieldOperation<string, z.ZodRawShape> | undefined
  if (!found) throw new Error(`There is no operation “${step.kind}” on fields.`)
  return found.apply(field, step, centre)
}

/** An operation as it starts, its lengths fitted to the photo. */
export function newFieldStep(kind: FieldStep['kind'], photo: Size): FieldStep {
  const found = fieldOperations.find((one) => one.kind === kind)
  if (!found) throw new Error(`There is no operation “${kind}” on fields.`)
  const fitted = fitLengths<FieldStep>(fieldOperationSchema, { kind, ...found.start } as FieldStep, evenFit(lengthFactor(photo)))
  const rounded = Object.entries(fitted).map(([key, value]: [string, unknown]) => [
    key,
    typeof value === 'number' ? Number(value.toFixed(2)) : value,
  ])
  return fieldOperationSchema.parse(Object.fromEntries(rounded))
}
