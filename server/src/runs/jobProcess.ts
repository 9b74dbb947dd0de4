import { fork, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { UserProblem } from '@welkinar/core'
import { storeAt } from '../stores/openStore'
import { notePath } from './notes'
import { jobOf, type Carried, type FileResult } from './plan'

/** What a process of jobs is asked. */
export interface Asked {
  readonly job: Carried
}

/** What it answers. */
export type Answer = { readonly ready: true } | { readonly results: readonly FileResult[] } | { readonly problem: string }

/** What each process may take. */
export interface ProcessLimits {
  readonly threads?: number
  /** Most that results may take, bytes. */
  readonly memory?: number
}

/** The process ended before the job did. */
export class ProcessDied extends Error {
  override readonly name = 'ProcessDied'
}

/** A process of its own for jobs, begun when it is needed, and once more after it has died. */
export class JobProcess {
  private child: Promise<ChildProcess> | undefined

  constructor(
    private readonly limits: ProcessLimits,
    private readonly script = fileURLToPath(new URL('./jobs.js', import.meta.url)),
  ) {}

  /** @throws UserProblem if the job cannot be worked on; ProcessDied if the process ends meanwhile */
  async run(job: Carried): Promise<readonly FileResult[]> {
    this.child ??= this.start()
    const child = await this.child
    child.send({ job } satisfies Asked)
    const answer = await this.next(child).catch(async (error: unknown) => {
      await clearAfter(job).catch(() => undefined)
      throw error
    })
    if ('problem' in answer) throw new UserProblem(answer.problem)
    return 'results' in answer ? answer.results : []
  }

  /** Of the process that works now. */
  async pid(): Promise<number | undefined> {
    return (await this.child?.catch(() => undefined))?.pid
  }

  async end(): Promise<void> {
    const child = await this.child?.catch(() => undefined)
    if (child?.connected) child.disconnect()
  }

  private async start(): Promise<ChildProcess> {
    const child = fork(this.script, [JSON.stringify(this.limits)], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] })
    await this.next(child)
    return child
  }

  private next(child: ChildProcess): Promise<Answer> {
    return new Promise((resolve, reject) => {
      const done = (): void => {
        child.off('message', answered).off('exit', ended).off('error', ended)
      }
      const answered = (answer: Answer): void => {
        done()
        resolve(answer)
      }
      const ended = (): void => {
        done()
        this.child = undefined
        reject(new ProcessDied('The process of the job has ended.'))
      }
      child.on('message', answered).on('exit', ended).on('error', ended)
      if (child.exitCode !== null || child.signalCode !== null) ended()
    })
  }
}

/** Leaves nothing half of a job whose process has died. */
async function clearAfter(what: Carried): Promise<void> {
  const store = await storeAt(what.store)
  const { names } = await jobOf(store, what)
  await store.clearBeside(names.flatMap((name) => [name, notePath(name)]))
}
