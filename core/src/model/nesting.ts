/** No document of ours nests deeper than a third of this. */
const MOST_DEPTH = 60

/** Whether a value is nested so deep that it is no document, and would end whatever walks it. */
export function isTooDeep(value: unknown): boolean {
  let level = [value]
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > MOST_DEPTH) return true
    level = level.flatMap((one) => (typeof one === 'object' && one !== null ? Object.values(one).filter(isNested) : []))
  }
  return false
}

function isNested(value: unknown): boolean {
  return typeof value === 'object' && value !== null
}
