import { z } from 'zod'
import { effectDefinitions } from '../src/effects/registry'
import { choiceOf, controlOf, limitsOf } from '../src/model/controls'
import { rolesOf } from '../src/model/roles'

/** Tables of the controls of every kind of effect, from their schemas, as Markdown. */
export function controlTables(): string {
  const tables = effectDefinitions.map(({ kind, label, controls }) => {
    const rows = (['pattern', 'shape'] as const).flatMap((step) => rowsOf(controls.shape[step], step))
    return [`### ${label} (\`${kind}\`)`, '', '| key | value | what it is |', '| --- | --- | --- |', ...rows].join('\n')
  })
  return `${tables.join('\n\n')}\n`
}

function rowsOf(schema: z.ZodType, path: string): string[] {
  const { inner, suffix } = unwrapped(schema)
  if (inner instanceof z.ZodObject) {
    return Object.entries(inner.shape as Record<string, z.ZodType>).flatMap(([key, value]) => rowsOf(value, `${path}.${key}`))
  }
  const { list } = rolesOf(schema)
  if (inner instanceof z.ZodArray) {
    const count = list ? `${list.least}–${list.most} ${list.words}` : 'a list'
    return [row(path, `${count}${suffix}`, whatItIs(schema)), ...rowsOf(inner.element as z.ZodType, `${path}[]`)]
  }
  if (inner instanceof z.ZodUnion) {
    return (inner.options as z.ZodType[]).flatMap((option, index) => rowsOf(option, `${path}(${index + 1})`))
  }
  return [row(path, `${valueOf(inner)}${suffix}`, whatItIs(schema))]
}

/** A schema without its default and null, and words for what was taken off. */
function unwrapped(schema: z.ZodType): { inner: z.ZodType; suffix: string } {
  if (schema instanceof z.ZodNullable) {
    const { inner, suffix } = unwrapped(schema.unwrap() as z.ZodType)
    return { inner, suffix: `${suffix}, or null` }
  }
  if (schema instanceof z.ZodDefault) {
    const { inner, suffix } = unwrapped(schema.unwrap() as z.ZodType)
    return { inner, suffix: `${suffix}; ${JSON.stringify(schema.def.defaultValue)} if it is missing` }
  }
  return { inner: schema, suffix: '' }
}

function valueOf(schema: z.ZodType): string {
  if (schema instanceof z.ZodNumber) {
    const { least, most, whole } = limitsOf(schema)
    const unit = controlOf(schema)?.unit
    return `${least}–${most}${unit ? ` ${unit}` : ''}${whole ? ', whole' : ''}`
  }
  if (schema instanceof z.ZodEnum) return schema.options.map((option) => `\`${String(option)}\``).join(', ')
  if (schema instanceof z.ZodLiteral) return [...schema.values].map((value) => `\`${String(value)}\``).join(', ')
  if (schema instanceof z.ZodBoolean) return 'true or false'
  return rolesOf(schema).refersTo ? `id of a ${rolesOf(schema).refersTo}` : 'text'
}

function whatItIs(schema: z.ZodType): string {
  const { measures, byHand, refersTo } = rolesOf(schema)
  const control = controlOf(schema)
  const words = [control?.label ?? choiceOf(schema)?.label, control?.hint].filter(Boolean).join(': ')
  const roles = [measures && `${measures} on the photo`, byHand && 'placed by hand', refersTo && `refers to a ${refersTo}`].filter(Boolean)
  return [words, ...roles].filter(Boolean).join('; ')
}

function row(...cells: string[]): string {
  return `| ${cells.map((cell, i) => (i === 0 ? `\`${cell}\`` : cell.replaceAll('|', '\\|'))).join(' | ')} |`
}
