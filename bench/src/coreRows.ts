import { median, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import type { ProcessRun } from './runNode'
import { job, mixedStack } from './stackRows'

const size = { width: WIDTH, height: HEIGHT }
const RUNS = 3

/** What more threads take than one, and gain: work, memory, waiting. In turn with one thread, since a machine is not as fast all the time. */
export async function coreRows(folder: string, photo: string): Promise<Row[]> {
  const rows: Row[] = []
  for (const [effects, threads, mostWork, mostMemory] of [
    [5, 8, 1.25, 1.2e9],
    [5, 16, 1.4, 1.5e9],
    [10, 8, 1.25, undefined],
    [10, 16, 1.4, undefined],
  ] as const) {
    const { one, many } = await inTurn(folder, photo, effects, threads)
    const within = many.work <= mostWork * one.work && (mostMemory === undefined || many.memory <= mostMemory)
    rows.push({
      work: `work of ${threads} threads, ${effects} mixed effects, 24 MP`,
      ours: many.work,
      other: { name: 'one thread', ms: one.work },
      memory: many.memory,
      reach: `≤ ${mostWork} ×${mostMemory === undefined ? '' : `, ${mostMemory / 1e9} GB`}`,
      within,
    })
  }
  const { one, many } = await inTurn(folder, photo, 10, 2)
  rows.push({
    work: 'waiting with two threads, 10 mixed effects, 24 MP',
    ours: many.ms,
    other: { name: 'one thread', ms: one.ms },
    memory: many.memory,
    reach: '≤ 0.62 ×',
    within: many.ms <= 0.62 * one.ms,
  })
  return rows
}

/** Medians of runs with one thread and with many, one after the other. */
async function inTurn(folder: string, photo: string, effects: number, threads: number): Promise<{ one: ProcessRun; many: ProcessRun }> {
  const runs: { one: ProcessRun; many: ProcessRun }[] = []
  const stack = mixedStack(size, effects)
  for (let i = 0; i < RUNS; i++)
    runs.push({ one: await job(folder, photo, size, stack, undefined, 1), many: await job(folder, photo, size, stack, undefined, threads) })
  const middle = (which: 'one' | 'many'): ProcessRun => ({
    ms: median(runs.map((run) => run[which].ms)),
    work: median(runs.map((run) => run[which].work)),
    memory: median(runs.map((run) => run[which].memory)),
  })
  return { one: middle('one'), many: middle('many') }
}
