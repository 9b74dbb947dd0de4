import type { Remote } from 'comlink'
import type { GraphNode } from '../graph/node'
import type { PhotoData } from '../photo/photoData'
import { Diary } from './diary'
import type { RenderWorker } from './renderWorker'
import type { SharedResults } from './sharedResults'
import { KnownNodes, type SentGraph } from './sentGraph'

/** A thread as the platform starts it. */
export interface Thread {
  readonly worker: Remote<RenderWorker>
  /** Calls `report` if the thread ends by itself. */
  onEnd(report: (why: string) => void): void
  end(): void
}

export type StartThread = () => Promise<Thread>

/** Why a thread gave no answer. */
export type Failure = 'ended' | 'stuck' | 'memory' | 'error' | 'given up' | 'too costly'

/** A thread did not do what it was asked for. */
export class LaneFailure extends Error {
  /** @param nodeKey the node that it was computing, if that is known */
  constructor(
    readonly failure: Failure,
    readonly nodeKey: string | undefined,
    cause: unknown,
  ) {
    super(cause instanceof Error ? cause.message : String(cause), { cause })
  }
}

/** A thread that holds more when a photo is let go is replaced by a fresh one, bytes: little, where nobody waits for it then, since what it holds grows only. */
const MOST_MEMORY_AT_REST = 48e6

/** One place for a thread. A thread that dies, or is given up, is replaced when the next one is needed, and given the photos again. */
export class Lane {
  private starting: Promise<Started> | undefined
  /** Calls without an answer yet. */
  private calls = 0
  private number = 0
  private closed = false

  /**
   * @param photos those that every thread holds
   * @param results what all threads keep in common
   * @param stallSeconds a thread that gives no sign of life for so long is stuck, unless it has asked for more time
   */
  constructor(
    private readonly startThread: StartThread,
    private readonly photos: ReadonlyMap<string, PhotoData>,
    private readonly results: SharedResults,
    private readonly stallSeconds: number,
  ) {}

  /**
   * What the thread answers.
   * @param signal when it is aborted the thread gives up before its next operation, if it was told the number of the call
   * @throws LaneFailure if it gives no answer, or one that is an error
   */
  async call<T>(
    work: (worker: Remote<RenderWorker>, send: (node: GraphNode) => SentGraph, call: number) => Promise<T>,
    signal?: AbortSignal,
  ): Promise<T> {
    const { thread, known, diary, waiting } = await this.started()
    const call = ++this.number
    const giveUp = (): void => diary?.giveUp(call)
    signal?.addEventListener('abort', giveUp, { once: true })
    this.calls++
    let fail: (error: LaneFailure) => void = () => undefined
    let stop: () => void = () => undefined
    try {
      return await new Promise<T>((resolve, reject) => {
        fail = reject
        waiting.add(fail)
        stop = watch(diary, this.stallSeconds, fail)
        work(thread.worker, (node) => known.send(node), call).then(resolve, reject)
        // It may have been given up while the thread was starting.
        if (signal?.aborted) giveUp()
      })
    } catch (error) {
      const nodeKey = diary && known.keyAt(diary.node)
      throw error instanceof LaneFailure
        ? new LaneFailure(error.failure, nodeKey, error.cause)
        : new LaneFailure(kindOf(error), nodeKey, error)
    } finally {
      this.calls--
      signal?.removeEventListener('abort', giveUp)
      waiting.delete(fail)
      stop()
    }
  }

  /** Gives the photo to the thread, if there is one; a later one gets it when it starts. */
  async addPhoto(photo: PhotoData): Promise<void> {
    if (this.starting) await unlessEnded(this.call((worker) => worker.addPhoto(photo)))
  }

  /** @param most bytes that the thread may hold afterwards; one that holds more is replaced, unless it computes */
  async dropPhoto(id: string, most: number = MOST_MEMORY_AT_REST): Promise<void> {
    if (!this.starting) return
    const held = (await unlessEnded(this.call(async (worker) => worker.dropPhoto(id)))) ?? 0
    // Memory of kernels is given back only with the thread. The next one is there before it is needed.
    if (held > most && this.calls === 0) {
      this.retire()
      await this.started()
    }
  }

  /**
   * Gives the thread up.
   * @param why after one that ran out of memory all keep half as much
   * @returns whether less is kept
   */
  retire(why?: unknown): boolean {
    const keepsLess = why instanceof LaneFailure && why.failure === 'memory' && this.results.keepLess()
    // A page is not told that a thread has ended which it ended itself.
    this.starting
      ?.then(({ thread, waiting, lane }) => {
        waiting.end(new LaneFailure('ended', undefined, 'The thread was given up.'))
        thread.end()
        this.results.forget(lane)
      })
      .catch(() => undefined)
    this.starting = undefined
    return keepsLess
  }

  /** Gives the thread up for good. */
  close(): void {
    this.closed = true
    this.retire()
  }

  get isClosed(): boolean {
    return this.closed
  }

  /** Starts the thread unless it runs. */
  started(): Promise<Started> {
    if (!this.starting) {
      const starting = this.start(() => {
        // A thread that was given up ends too, perhaps when the next one is at work already.
        if (this.starting === starting) this.retire()
      })
      this.starting = starting
      // A start that failed is tried anew the next time.
      starting.catch(() => {
        if (this.starting === starting) this.starting = undefined
      })
    }
    return this.starting
  }

  private async start(onEnd: () => void): Promise<Started> {
    const thread = await this.startThread()
    const waiting = new Waiting()
    thread.onEnd((why) => {
      waiting.end(new LaneFailure('ended', undefined, why))
      onEnd()
    })
    const diary = Diary.start()
    if (diary) await thread.worker.keepDiary(diary.memory)
    const lane = await this.results.give(thread.worker)
    for (const photo of this.photos.values()) await thread.worker.addPhoto(photo)
    return { thread, known: new KnownNodes(), diary, waiting, lane }
  }
}

interface Started {
  readonly thread: Thread
  readonly known: KnownNodes
  readonly diary: Diary | undefined
  readonly waiting: Waiting
  /** Its number among those that share results. */
  readonly lane: number
}

/** The calls of a thread that have no answer yet; they fail when it ends by itself. One promise for all of them would keep every answer as long as the thread lives. */
class Waiting {
  private readonly fails = new Set<(error: LaneFailure) => void>()
  private ended: LaneFailure | undefined

  add(fail: (error: LaneFailure) => void): void {
    if (this.ended) fail(this.ended)
    else this.fails.add(fail)
  }

  delete(fail: (error: LaneFailure) => void): void {
    this.fails.delete(fail)
  }

  end(error: LaneFailure): void {
    this.ended = error
    this.fails.forEach((fail) => fail(error))
  }
}

/** Without a diary a thread cannot be seen at work: it has so many times as long. */
const PATIENCE_WITHOUT_DIARY = 15
/** How often it is looked for a sign of life, of the time after which a thread counts as stuck. */
const LOOKS = 8

/** Calls `fail` when the thread has given no sign of life for some time. @returns what ends the watch */
function watch(diary: Diary | undefined, seconds: number, fail: (error: LaneFailure) => void): () => void {
  let signs = diary?.signs
  let waited = 0
  const timer = setInterval(
    () => {
      waited += seconds / LOOKS
      if (diary && diary.signs !== signs) [signs, waited] = [diary.signs, 0]
      const patience = diary ? seconds + diary.allowance : PATIENCE_WITHOUT_DIARY * seconds
      if (waited >= patience) fail(new LaneFailure('stuck', undefined, `It gave no sign of life for ${Math.round(waited)} s.`))
    },
    (1000 * seconds) / LOOKS,
  )
  return () => clearInterval(timer)
}

/** Nothing where the thread has ended: the next one is given the photos when it starts. */
async function unlessEnded<T>(call: Promise<T>): Promise<T | undefined> {
  try {
    return await call
  } catch (error) {
    if (error instanceof LaneFailure && error.failure === 'ended') return undefined
    throw error
  }
}

/** An error that crossed from a thread keeps its name and its message only. */
function kindOf(error: unknown): Failure {
  const { name, message } = (error ?? {}) as { name?: string; message?: string }
  if (name === 'GivenUp') return 'given up'
  if (name === 'TooCostly') return 'too costly'
  // A kernel that gets no memory ends in a trap.
  return name === 'RuntimeError' || (name === 'RangeError' && /memory|allocation/i.test(message ?? '')) ? 'memory' : 'error'
}
