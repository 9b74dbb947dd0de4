import { z } from 'zod'
import { controlOf, limitsOf } from '../src/model/controls'
import { newEffect } from '../src/effects/newEffect'
import { definitionOf, effectSchema, type Effect, type EffectKind } from '../src/effects/registry'
import type { Size } from '../src/planes/grid'

/** Where in its range a number is put. */
export type Places = 'anywhere' | 'limits' | 'usual ends'

/** Numbers 0-1. */
type Random = () => number

/**
 * A value that a schema accepts, made from one that it accepts: numbers, choices and switches anew, lists, texts and what is null as they were.
 * @param part 0-1: of so many of them
 */
export function randomValue(schema: z.ZodType, value: unknown, random: Random, places: Places, part = 1): unknown {
  const made = changed(schema, value, random, places, part)
  // What must agree with its neighbours stays as it was if it does not.
  return schema.safeParse(made).success ? made : value
}

function changed(schema: z.ZodType, value: unknown, random: Random, places: Places, part: number): unknown {
  if (schema instanceof z.ZodDefault) return randomValue(schema.unwrap() as z.ZodType, value, random, places, part)
  if (schema instanceof z.ZodNullable) return value === null ? null : randomValue(schema.unwrap() as z.ZodType, value, random, places, part)
  if (schema instanceof z.ZodArray)
    return (value as unknown[]).map((item) => randomValue(schema.element as z.ZodType, item, random, places, part))
  if (schema instanceof z.ZodObject) {
    const shape = schema.shape as Record<string, z.ZodType>
    const entries = Object.entries(value as Record<string, unknown>)
    return Object.fromEntries(entries.map(([key, item]) => [key, shape[key] ? randomValue(shape[key], item, random, places, part) : item]))
  }
  if (random() > part) return value
  if (schema instanceof z.ZodNumber) return randomNumber(schema, value as number, random, places)
  if (schema instanceof z.ZodEnum) return schema.options[Math.floor(random() * schema.options.length)]
  if (schema instanceof z.ZodBoolean) return random() < 0.5
  return value
}

function randomNumber(schema: z.ZodNumber, value: number, random: Random, places: Places): number {
  const { least, most, whole } = limitsOf(schema)
  const [low, high] = (places === 'usual ends' ? controlOf(schema)?.usual : undefined) ?? [least, most]
  if (!Number.isFinite(low) || !Number.isFinite(high)) return value
  const at = places === 'anywhere' ? low + random() * (high - low) : random() < 0.5 ? low : high
  return whole ? Math.round(at) : at
}

/** An effect with the controls, the colour and the mix of a look, made anew at random. */
export function randomEffect(size: Size, kind: EffectKind, random: Random, places: Places, part = 1): Effect {
  const { startingLooks, controls } = definitionOf(kind)
  const look = startingLooks[Math.floor(random() * startingLooks.length)]?.id
  const effect = newEffect(size, { kind, ...(look === undefined ? {} : { look }), id: 'random' })
  const made = { ...effect, controls: randomValue(controls, effect.controls, random, places, part) }
  return effectSchema.safeParse(made).success ? (made as Effect) : effect
}
