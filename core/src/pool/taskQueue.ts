interface Task<W> {
  readonly priority: number
  readonly order: number
  readonly lane: number | undefined
  readonly signal: AbortSignal | undefined
  start(worker: W): Promise<void>
  drop(reason: Error): void
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
  private readonly watched = new WeakSet<AbortSignal>()

  constructor(private readonly workers: readonly W[]) {
    this.busy = workers.map(() => false)
  }

  /** Resolves with what `work` gives. An aborted task that has not begun never runs. */
  run<T>(priority: number, work: (worker: W) => Promise<T>, options: TaskOptions = {}): Promise<T> {
    const { lane, signal } = options
    return new Promise<T>((resolve, reject) => {
      if (signal?.aborted) return reject(abortReason(signal))
      const start = (worker: W): Promise<void> => work(worker).then(resolve, reject)
      this.waiting.push({ priority, order: this.order++, lane, signal, start, drop: reject })
      if (signal) this.watch(signal)
      this.next()
    })
  }

  /** Drops the waiting tasks of a signal when it is aborted. A request of many tiles has one signal. */
  private watch(signal: AbortSignal): void {
    if (this.watched.has(signal)) return
    this.watched.add(signal)
    const drop = (): void => {
      const dropped = this.waiting.filter((task) => task.signal === signal)
      this.waiting = this.waiting.filter((task) => task.signal !== signal)
      dropped.forEach((task) => task.drop(abortReason(signal)))
    }
    signal.addEventListener('abort', drop, { once: true })
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
