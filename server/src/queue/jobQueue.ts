import type { Carried, FileResult } from '../runs/plan'

/** How a job ended: with what became of its files, or with why there are none. */
export type Ended = { readonly results: readonly FileResult[] } | { readonly problem: string }

/** Works on a job. @throws ProcessDied if it was lost with the process that did; UserProblem if it cannot be done */
export type Work = (job: Carried) => Promise<readonly FileResult[]>

/** How often a job may be lost with whoever works on it, until it is given up. */
export const MOST_LOST = 3

export const GIVEN_UP = `It has ended what computed it ${MOST_LOST} times, and is given up.`

/** Jobs that wait for whoever works on them. A job is known by run and index; each is there once. */
export interface JobQueue {
  /** Hands jobs in, and tells how each of them ended, once, in no order. Resolves when all have. */
  follow(jobs: readonly Carried[], onEnd: (job: Carried, ended: Ended) => void): Promise<void>
  /** Takes jobs, as many at the same time as there are slots, until it is stopped; the function that is given back stops it, with what is worked on brought to its end. */
  serve(slots: readonly Work[]): Promise<() => Promise<void>>
  close(): Promise<void>
}
