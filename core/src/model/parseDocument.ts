import type { z } from 'zod'
import { upgradeDocument } from './upgrade'
import { UserProblem } from './userProblem'

/**
 * Reads and validates a JSON document of one of our formats; an older version is upgraded first.
 * @throws UserProblem naming the file, the path of the wrong value and what was expected
 */
export function parseDocument<T>(text: string, fileName: string, schema: z.ZodType<T>, version: number, what: string): T {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new UserProblem(`“${fileName}” is not a ${what}: it is not valid JSON.`)
  }
  const found = (json as { version?: unknown } | null)?.version
  if (typeof found === 'number' && found > version) {
    const needed = `it has version ${found}, this Welkinar reads up to version ${version}`
    throw new UserProblem(`“${fileName}” was made by a newer Welkinar: ${needed}.`)
  }
  const result = schema.safeParse(upgradeDocument(json))
  if (result.success) return result.data
  const [issue] = result.error.issues
  const path = issue?.path.length ? issue.path.join('.') : 'the whole file'
  const message = issue ? lowerFirst(issue.message.replace(/^Invalid input: /, '')) : 'something else was expected'
  throw new UserProblem(`“${fileName}” is not a valid ${what}: at ${path}, ${message}.`)
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
