import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

/** The command line, as it is built. */
export const welkinarCommand = fileURLToPath(new URL('../../server/dist/welkinar.js', import.meta.url))
export const renderCommand = [welkinarCommand, 'render', '--overwrite'] as const

export interface ProcessRun {
  readonly ms: number
  /** Peak resident memory, bytes. */
  readonly memory: number
  /** Work of all its threads, ms. */
  readonly work: number
  readonly failure?: string
}

const LOOK_EVERY_MS = 40

/** Runs a script in a process of its own. @returns what it took, and what it said if it failed */
export function runNode(args: readonly string[]): Promise<ProcessRun> {
  return new Promise((resolve) => {
    const started = performance.now()
    const child = spawn('node', args, { stdio: ['ignore', 'ignore', 'pipe'] })
    let [said, memory, work] = ['', 0, 0]
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
    const watch = setInterval(() => {
      memory = Math.max(memory, peakOf(child.pid))
      work = Math.max(work, workOf(child.pid))
    }, LOOK_EVERY_MS)
    child.on('close', (code) => {
      clearInterval(watch)
      resolve({ ms: performance.now() - started, memory, work, ...(code === 0 ? {} : { failure: said.trim() }) })
    })
  })
}

/** The greatest resident memory that a process has had, by Linux; 0 where that cannot be read. */
function peakOf(pid: number | undefined): number {
  try {
    return 1024 * Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0)
  } catch {
    return 0
  }
}

/** Linux counts the time of a process in hundredths of a second. */
const MS_A_TICK = 10

/** The time that all threads of a process have had, ms. */
function workOf(pid: number | undefined): number {
  try {
    const numbers = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? []
    return MS_A_TICK * (Number(numbers[11]) + Number(numbers[12]))
  } catch {
    return 0
  }
}
