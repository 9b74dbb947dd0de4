import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

interface Process {
  readonly pid: string
  readonly parent: string
  readonly command: string
}

/** Proportional set size of the largest page of the browsers that this process has started, bytes, by Linux; 0 if there is none. */
export function pageMemory(): number {
  const sizes = ownPages().map((pid) => {
    try {
      return 1024 * Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? 0)
    } catch {
      return 0
    }
  })
  return Math.max(0, ...sizes)
}

/** The processes of pages among those that this one has started, and those have started; other browsers on the machine are none of it. */
function ownPages(): string[] {
  const all = execFileSync('ps', ['-eo', 'pid=,ppid=,args='], { encoding: 'utf8' })
    .split('\n')
    .map((line): Process => {
      const [, pid = '', parent = '', command = ''] = /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line) ?? []
      return { pid, parent, command }
    })
  const own = new Set([String(process.pid)])
  for (let before = 0; before < own.size;) {
    before = own.size
    for (const { pid, parent } of all) if (own.has(parent)) own.add(pid)
  }
  return all.filter(({ pid, command }) => own.has(pid) && command.includes('--type=renderer')).map(({ pid }) => pid)
}
