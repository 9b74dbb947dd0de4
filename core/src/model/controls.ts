import { z } from 'zod'
import { withRoles, type Roles } from './roles'

/** Farthest that anything may lie outside the photo, px. */
const FARTHEST = 100000

/** What the interface needs to know about a number: its words, its unit, its usual range. The schema itself holds the hard range. */
export interface NumberControl {
  readonly label: string
  readonly unit: Unit
  /** What a slider covers. */
  readonly usual: readonly [number, number]
  readonly step: number
  /** How it is written where not as a plain number: 1/60 s, f/5.6. */
  readonly written?: 'fraction' | 'aperture'
  readonly hint?: string
}

type Unit = '' | 'EV' | '‰' | 'px' | '%' | '°' | '×' | 'm' | 'mm' | 'mm/h' | 's' | 'min' | 'K' | 'MB'

interface NumberOptions extends NumberControl, Roles {
  /** What a typed number may reach. */
  readonly hard: readonly [number, number]
  readonly whole?: boolean
}

/** Schema of a number with its control. Percentages are kept as parts of 100, the way they are shown. */
export function numberControl(options: NumberOptions): z.ZodNumber {
  const { hard, whole, measures, noise, byHand, ...control } = options
  const roles: Roles = { ...(measures && { measures }), ...(noise && { noise }), ...(byHand && { byHand }) }
  const base = whole ? z.int() : z.number()
  return withRoles(base.min(hard[0]).max(hard[1]).meta({ control }), roles)
}

/** A length in px of the full-size photo. */
export function lengthControl(options: Omit<NumberOptions, 'unit' | 'measures'>): z.ZodNumber {
  return numberControl({ ...options, unit: 'px', measures: 'length' })
}

/**
 * A place across (`x`) or down (`y`) the photo, px from its top left corner; it may lie outside the frame.
 * @param of what lies there
 */
export function placeControl(measures: 'x' | 'y', of = '', roles: Roles = {}): z.ZodNumber {
  const label = of ? `${of} ${measures}` : measures.toUpperCase()
  return numberControl({ label, unit: 'px', measures, usual: [0, 6000], hard: [-FARTHEST, FARTHEST], step: 1, ...roles })
}

/** How far a pattern is moved, px of the full-size photo. */
export function offsetControl(label: string): z.ZodNumber {
  return lengthControl({ label, usual: [-3000, 3000], hard: [-100000, 100000], step: 1 })
}

/** Percent from 0 to 100. */
export function percentControl(label: string, hint?: string): z.ZodNumber {
  return numberControl({ label, unit: '%', usual: [0, 100], hard: [0, 100], step: 1, ...(hint ? { hint } : {}) })
}

/** Percent of a strength: a slider to 100, and beyond it when typed. */
export function strengthControl(label: string, hint?: string): z.ZodNumber {
  return numberControl({ label, unit: '%', usual: [0, 100], hard: [0, 500], step: 1, ...(hint ? { hint } : {}) })
}

/** What a pattern's hash starts from. */
export function seedControl(): z.ZodNumber {
  return numberControl({ label: 'Seed', unit: '', usual: [0, 9999], hard: [0, 2147483647], step: 1, whole: true, noise: 'seed' })
}

/** Levels of a field, as the interface names them. */
export const levelControls = {
  black: percentControl('Black point'),
  white: numberControl({ label: 'White point', unit: '%', usual: [1, 150], hard: [1, 400], step: 1 }),
  gamma: numberControl({ label: 'Gamma', unit: '', usual: [0.3, 3], hard: [0.1, 10], step: 0.05 }),
}

/** An angle in degrees counter-clockwise. */
export function angleControl(label: string, roles: Roles = {}): z.ZodNumber {
  return numberControl({ label, unit: '°', usual: [-180, 180], hard: [-360, 360], step: 0.5, ...roles })
}

/** A colour written #rrggbb, sRGB. */
export const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i, 'expected a colour written #rrggbb')

/** Schema of a colour with its words. */
export function colourControl(label: string): z.ZodString {
  return hexColour.meta({ colour: { label } })
}

/** The words of a colour, if the schema is one. */
export function colourLabelOf(schema: z.ZodType): string | undefined {
  return (withoutDefault(schema).meta()?.['colour'] as { readonly label: string } | undefined)?.label
}

/** What a place follows: nothing, the focal point, or a light by its id. A light that is not there stands for the first one. */
export function followControl(): z.ZodNullable<z.ZodString> {
  return withRoles(z.string().min(1).max(80).nullable(), { refersTo: 'light', byHand: true }).meta({ follows: 'point' })
}

/** Whether a schema is what a place follows. */
export function isFollowing(schema: z.ZodType): boolean {
  return schema.meta()?.['follows'] === 'point'
}

/** What the interface needs to know about a choice: its words, and those of each value. */
export interface ChoiceControl {
  readonly label: string
  readonly options: readonly (readonly [value: string, words: string])[]
}

/** Schema of one of several values, with its words. */
export function choiceControl<const T extends Readonly<Record<string, string>>>(
  label: string,
  words: T,
): z.ZodEnum<{ [K in keyof T & string]: K }> {
  const options = Object.entries(words)
  const keys = Object.fromEntries(options.map(([value]) => [value, value])) as { [K in keyof T & string]: K }
  return z.enum(keys).meta({ choice: { label, options } })
}

/** A schema without the value that it takes when nothing is given, and without null. */
function withoutDefault(schema: z.ZodType): z.ZodType {
  return schema instanceof z.ZodDefault || schema instanceof z.ZodNullable ? withoutDefault(schema.unwrap() as z.ZodType) : schema
}

/** The control of a schema, if it is a number with one. */
export function controlOf(schema: z.ZodType): NumberControl | undefined {
  return withoutDefault(schema).meta()?.['control'] as NumberControl | undefined
}

/** The control of a schema, if it is a choice. */
export function choiceOf(schema: z.ZodType): ChoiceControl | undefined {
  return withoutDefault(schema).meta()?.['choice'] as ChoiceControl | undefined
}

/** What a number must be. */
export interface NumberLimits {
  readonly least: number
  readonly most: number
  readonly whole: boolean
}

/** What a schema accepts as a number. */
export function limitsOf(schema: z.ZodType): NumberLimits {
  const { minValue, maxValue, isInt } = withoutDefault(schema) as z.ZodNumber
  return { least: minValue ?? -Infinity, most: maxValue ?? Infinity, whole: isInt }
}

/** What is wrong with a number, in words for the person; undefined if it can be taken. */
export function numberProblem(value: number, { least, most, whole }: NumberLimits): string | undefined {
  if (!Number.isFinite(value)) return 'A number is needed here.'
  if (value < least || value > most) return `Between ${least} and ${most}, please.`
  return whole && !Number.isInteger(value) ? 'A whole number, please.' : undefined
}

/** The number that comes nearest to a value among those that can be taken. */
export function nearestNumber(value: number, { least, most, whole }: NumberLimits): number {
  return Math.min(most, Math.max(least, whole ? Math.round(value) : value))
}

/** The schema at a path such as `shape.length` or `pattern.layers.0.size`. @throws RangeError if there is none */
export function schemaAt(schema: z.ZodType, path: string): z.ZodType {
  let at: unknown = schema
  for (const part of path.split('.')) {
    if (at instanceof z.ZodDefault || at instanceof z.ZodNullable) at = at.unwrap()
    if (at instanceof z.ZodArray) at = at.element
    else if (at instanceof z.ZodObject) at = (at.shape as Record<string, unknown>)[part]
    else throw new RangeError(`There is no control at “${path}”.`)
  }
  if (!at) throw new RangeError(`There is no control at “${path}”.`)
  return at as z.ZodType
}
