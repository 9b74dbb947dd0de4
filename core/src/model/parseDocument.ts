import type { z } from 'zod'
import { isTooDeep } from './nesting'
import { upgradeDocument } from './upgrade'
import { UserProblem } from './userProblem'
import { ageOf, documentVersion } from './version'

/**
 * Reads and validates a JSON document of one of our formats; an older version is upgraded first.
 * @param what it is in words; its format is the word for it
 * @throws UserProblem naming the file, the path of the wrong value and what was expected
 */
export function parseDocument<T>(text: string, fileName: string, schema: z.ZodType<T>, what: string): T {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new UserProblem(`“${fileName}” is not a ${what}: it is not valid JSON.`)
  }
  if (isTooDeep(json)) throw new UserProblem(`“${fileName}” is not a ${what}: it is nested deeper than any.`)
  if (isOurs(json) && ageOf(json) !== 'known') {
    const { version, minor } = json as { version: number; minor?: number }
    const needed = `it has version ${version}${minor ? `.${minor}` : ''}, this Welkinar reads up to version ${documentVersion.version}.${documentVersion.minor}`
    throw new UserProblem(`“${fileName}” was made by a newer Welkinar: ${needed}.`)
  }
  const result = schema.safeParse(upgradeDocument(json))
  if (result.success) return result.data
  const [issue] = result.error.issues
  const path = issue?.path.length ? issue.path.join('.') : 'the whole file'
  const message = issue ? lowerFirst(issue.message.replace(/^Invalid input: /, '')) : 'something else was expected'
  throw new UserProblem(`“${fileName}” is not a valid ${what}: at ${path}, ${message}.`)
}

function isOurs(json: unknown): boolean {
  const { format } = (json ?? {}) as { format?: unknown }
  return typeof format === 'string' && format.startsWith('welkinar-')
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
