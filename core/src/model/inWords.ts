import type { z } from 'zod'
import { choiceOf, controlOf, limitsOf, numberProblem } from './controls'
import { listLimit } from './roles'

/** What is wrong with a value, in words for the person; undefined if the schema accepts it. */
export function problemWith(schema: z.ZodType, value: unknown): string | undefined {
  const control = controlOf(schema)
  if (control && typeof value === 'number') {
    const limits = limitsOf(schema)
    const problem = numberProblem(value, limits)
    const whole = limits.whole ? 'a whole number' : 'a number'
    return problem && `“${control.label}” takes ${whole} from ${limits.least} to ${limits.most}; ${value} came.`
  }
  const limit = listLimit(schema)
  if (limit && Array.isArray(value) && value.length > limit.most) return `There is room for ${limit.most} ${limit.words}, not for more.`
  const result = schema.safeParse(value)
  if (result.success) return undefined
  const [issue] = result.error.issues
  const label = control?.label ?? choiceOf(schema)?.label ?? issue?.path.join('.')
  const message = (issue?.message ?? 'something else is expected').replace(/^Invalid input: /, '')
  return label ? `“${label}”: ${message}.` : `${message}.`
}
