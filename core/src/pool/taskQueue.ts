interface Task<W> {
  readonly priority: number
  readonly order: number
  readonly lane: number | undefined
  start(worker: W): Promise<void>
}

interface TaskOptions {
  /** Index of the only worker that may take the task. */
  readonly lane?: number
  readonly signal?: AbortSignal | undefined
}

/** Gives each worker one task at a time: the most urgent first, among equals the oldest. */
export class TaskQueue<W> {
  private waiting: Task<W>[] = []
  private readonly busy: boolean[]
  private order = 0

  constructor(private readonly workers: readonly W[]) {
    this.busy = workers.map(() => false)
  }

  /** Resolves with what `work` gives. An aborted task that has not begun never runs. */
  run<T>(priority: number, work: (worker: W) => Promise<T>, options: TaskOptions = {}): Promise<T> {
    const { lane, signal } = options
    return new Promise<T>((resolve, reject) => {
      if (signal?.aborted) return reject(abortReason(signal))
      const start = async (worker: W): Promise<void> => {
        signal?.removeEventListener('abort', leave)
        await work(worker).then(resolve, reject)
      }
      const task: Task<W> = { priority, order: this.order++, lane, start }
      const leave = (): void => {
        this.waiting = this.waiting.filter((other) => other !== task)
        if (signal) reject(abortReason(signal))
      }
      signal?.addEventListener('abort', leave, { once: true })
      this.waiting.push(task)
      this.next()
    })
  }

  private next(): void {
    this.workers.forEach((worker, index) => {
      if (this.busy[index]) return
      const task = this.mostUrgent(index)
      if (!task) return
      this.waiting = this.waiting.filter((other) => other !== task)
      this.busy[index] = true
      void task.start(worker).finally(() => {
        this.busy[index] = false
        this.next()
      })
    })
  }

  private mostUrgent(index: number): Task<W> | undefined {
    let best: Task<W> | undefined
    for (const task of this.waiting) {
      if (task.lane !== undefined && task.lane !== index) continue
      if (!best || task.priority < best.priority || (task.priority === best.priority && task.order < best.order)) best = task
    }
    return best
  }
}

function abortReason(signal: AbortSignal): Error {
  return signal.reason instanceof Error ? signal.reason : new DOMException('The request is outdated.', 'AbortError')
}
