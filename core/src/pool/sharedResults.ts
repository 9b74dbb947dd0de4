import type { Remote } from 'comlink'
import { POOL_LANE, ResultStore } from '../graph/resultStore'
import { canShare, storeMemory, type StoreMemory } from '../graph/storeMemory'
import type { RenderWorker } from './renderWorker'

/** Bytes that results of all threads together may take. */
export interface MemoryBudget {
  readonly most: number
  /** Less for small photos, where it is given: so much, and so much for each pixel of the largest one. */
  readonly small?: { readonly least: number; readonly perPixel: number }
}

/** What each thread keeps besides, bytes: so much at the most, and all threads together no more. */
const REST = { most: 96e6, all: 384e6 }
/** Less of the budget than this would be computed again and again. */
const LEAST_SHARE = 1 / 8
/** A thread that was ended may go on for a moment, ms. */
const MOMENT = 500

/** The results that all threads of a pool keep in common; where memory cannot be shared, how much each keeps for itself. */
export class SharedResults {
  private memory: StoreMemory | undefined
  private store: ResultStore | undefined
  private share = 1
  private pixels = 0
  private lastLane = -1
  private closed = false
  private readonly moments = new Set<ReturnType<typeof setTimeout>>()
  private readonly workers = new Map<number, Remote<RenderWorker>>()

  constructor(
    private readonly budget: MemoryBudget,
    private readonly threads: number,
  ) {
    this.begin()
  }

  /** Lets a thread take part. @returns its number */
  async give(worker: Remote<RenderWorker>): Promise<number> {
    // A number comes again when its thread is long gone: the other threads may have been replaced many times meanwhile.
    do this.lastLane = (this.lastLane + 1) % POOL_LANE
    while (this.workers.has(this.lastLane))
    const lane = this.lastLane
    this.workers.set(lane, worker)
    await this.giveTo(worker, lane)
    return lane
  }

  /** Gives back what a thread that has ended was computing. */
  forget(lane: number): void {
    this.workers.delete(lane)
    if (this.closed) return
    const { store } = this
    const giveBack = (): void => {
      if (store?.forgetLane(lane) === false && store === this.store) this.begin()
    }
    giveBack()
    const moment = setTimeout(() => {
      this.moments.delete(moment)
      giveBack()
    }, MOMENT)
    this.moments.add(moment)
  }

  /** No thread is left: nothing need be given back, and a process may end at once. */
  close(): void {
    this.closed = true
    this.moments.forEach((moment) => clearTimeout(moment))
  }

  /** Keeps half as much from now on. @returns whether that is possible */
  keepLess(): boolean {
    if (this.share <= LEAST_SHARE) return false
    this.share /= 2
    this.limit()
    return true
  }

  /** Fits the memory to the largest photo. */
  fitTo(pixels: number): void {
    this.pixels = pixels
    this.limit()
  }

  /** A photo is gone, with all results of it. Memory that is fitted to a photo is given back; other memory is for the next one. */
  letGo(): void {
    if (this.budget.small || this.share < 1) this.begin()
  }

  /** New memory for results: what was there is no longer needed, and goes when no thread uses it. */
  begin(): void {
    this.share = 1
    this.memory = canShare() ? storeMemory(this.budget.most) : undefined
    this.store = this.memory && new ResultStore(this.memory, POOL_LANE)
    this.store?.limitTo(this.bytes)
    // A thread that has ended gives no answer; the next one is given it when it starts.
    for (const [lane, worker] of this.workers) this.giveTo(worker, lane).catch(() => undefined)
  }

  private limit(): void {
    if (this.store?.limitTo(this.bytes) === false) this.begin()
  }

  private async giveTo(worker: Remote<RenderWorker>, lane: number): Promise<void> {
    await worker.useResults(this.memory ?? this.bytes / this.threads, lane, Math.min(REST.most, REST.all / this.threads))
  }

  private get bytes(): number {
    const { most, small } = this.budget
    return this.share * (small && this.pixels > 0 ? Math.min(most, small.least + small.perPixel * this.pixels) : most)
  }
}
