/** One row of the table. */
export interface Row {
  readonly work: string
  /** Milliseconds, medians. */
  readonly ours: number
  /** Milliseconds, and what took them; or a limit in words. */
  readonly other?: { readonly name: string; readonly ms: number }
  /** Peak memory of the whole process, bytes. */
  readonly memory?: number
  /** What is to be reached, if anything is. */
  readonly reach?: string
  readonly within?: boolean
  readonly remark?: string
}

const RUNS = 5

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? NaN
}

export function percentile(values: readonly number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN
}

/** Runs two kinds of work in turn, one uncounted run first, and gives the medians in milliseconds. */
export async function alternate(ours: () => unknown, other: () => unknown, runs = RUNS): Promise<{ ours: number; other: number }> {
  const times = { ours: [] as number[], other: [] as number[] }
  for (let i = 0; i <= runs; i++) {
    for (const [name, work] of [
      ['ours', ours],
      ['other', other],
    ] as const) {
      const start = performance.now()
      await work()
      if (i > 0) times[name].push(performance.now() - start)
    }
  }
  return { ours: median(times.ours), other: median(times.other) }
}

/** A row against another library, with the ratio that is to be reached. */
export function ratioRow(work: string, times: { ours: number; other: number }, name: string, reach: number, remark?: string): Row {
  const within = times.ours / times.other <= reach
  return { work, ours: times.ours, other: { name, ms: times.other }, reach: `≤ ${reach} ×`, within, ...(remark ? { remark } : {}) }
}

/** A row with a time that is to be reached. */
export function limitRow(work: string, ms: number, limit: number, remark?: string): Row {
  return { work, ours: ms, reach: `≤ ${limit} ms`, within: ms <= limit, ...(remark ? { remark } : {}) }
}
