import type { Where } from '@welkinar/core'

/** Whether two lists of masks do the same, whatever their masks are called. */
export function masksAlike(one: Where | null | undefined, other: Where | null | undefined): boolean {
  return withoutIds(one) === withoutIds(other)
}

function withoutIds(list: Where | null | undefined): string {
  return JSON.stringify(list && [list.hold, list.masks.map((mask) => ({ ...mask, id: '' }))])
}
