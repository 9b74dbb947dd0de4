import { UserProblem } from '@welkinar/core'
import { create } from 'zustand'

/** A message at the foot of the page. */
export interface Notice {
  readonly text: string
  readonly tone: 'info' | 'problem'
  readonly action?: { readonly label: string; run(): void }
}

/** One message of each tone at most, the latest: what went wrong does not hide what else is said. */
export const useNotices = create<Readonly<Partial<Record<Notice['tone'], Notice>>>>(() => ({}))

export function showNotice(text: string, action?: Notice['action']): void {
  useNotices.setState({ info: { text, tone: 'info', ...(action ? { action } : {}) } })
}

/** Shows what went wrong; what is not meant for people is described in general words and kept in the console. */
export function showProblem(error: unknown, doing: string): void {
  const known = error instanceof UserProblem
  if (!known) console.error(error)
  const text = known ? error.message : `${doing} did not work: ${error instanceof Error ? error.message : String(error)}`
  useNotices.setState({ problem: { text, tone: 'problem' } })
}
