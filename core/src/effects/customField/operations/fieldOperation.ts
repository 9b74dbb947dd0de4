import { z } from 'zod'
import type { GraphNode } from '../../../graph/node'
import { lengthControl, numberControl } from '../../../model/controls'
import type { Size } from '../../../planes/grid'

/** The place that operations about a place share, photo px, and the size of the photo. */
export interface Centre extends Size {
  readonly x: number
  readonly y: number
}

/** One kind of operation: its words, its numbers, what it starts with for 6 megapixels, and what it does to a field. */
export interface FieldOperation<K extends string, S extends z.ZodRawShape> {
  readonly kind: K
  readonly label: string
  readonly schema: z.ZodObject<{ kind: z.ZodLiteral<K> } & S>
  readonly start: z.infer<z.ZodObject<S>>
  apply(field: GraphNode, params: z.infer<z.ZodObject<S>>, centre: Centre): GraphNode
}

/** An operation of the Field studio. @param start its numbers at 6 megapixels */
export function operation<K extends string, S extends z.ZodRawShape>(
  kind: K,
  label: string,
  numbers: S,
  start: z.infer<z.ZodObject<S>>,
  apply: FieldOperation<K, S>['apply'],
): FieldOperation<K, S> {
  return {
    kind,
    label,
    schema: z.strictObject({ kind: z.literal(kind), ...numbers }) as unknown as FieldOperation<K, S>['schema'],
    start,
    apply,
  }
}

/** A length from nothing up to where the largest photo ends. */
export const radius = (label: string, usual: [number, number], hint?: string) =>
  lengthControl({ label, usual, hard: [0, 6000], step: 0.5, ...(hint ? { hint } : {}) })

/** A value of a field, which may lie beyond black and white. */
export const level = (label: string) => numberControl({ label, unit: '%', usual: [0, 100], hard: [-100, 200], step: 1 })
