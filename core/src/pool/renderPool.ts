import type { Band, EncodedBand, FileFormat } from '../codecs/formats/fileFormat'
import { sizeProblem } from '../codecs/formats/limits'
import { fileFormats, type ExportOptions } from '../codecs/formats/registry'
import type { ColourSpace } from '../colour/colourSpace'
import type { Rgb } from '../colour/hex'
import type { Keep } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import type { FoundPatch } from '../measure/findPatch'
import type { FoundGlint } from '../measure/glints'
import type { MeasuredLight } from '../measure/places'
import { inSpaceNode } from '../operations/colour/inSpace/inSpace'
import type { ToneChannel } from '../operations/masks/luminosityMask/luminosityMask'
import type { Reading } from '../model/reading'
import { UserProblem } from '../model/userProblem'
import { coverId } from '../photo/pictureIds'
import type { PhotoData } from '../photo/photoData'
import type { Grid, Size } from '../planes/grid'
import { splitIntoTiles, type Rect } from '../planes/rect'
import type { BitDepth } from '../render/renderTile'
import { Bands } from './bands'
import { ColumnLanes } from './columnLanes'
import { Lane, LaneFailure, type StartThread } from './lane'
import { RenderProblem } from './renderProblem'
import type { Opened, QuickPicture, Reduce, RenderWorker } from './renderWorker'
import type { SentGraph } from './sentGraph'
import { SharedResults, type MemoryBudget } from './sharedResults'
import { TaskQueue } from './taskQueue'

/** What is wanted sooner goes first. */
export const priorities = { view: 0, steps: 1, measure: 2, thumbnails: 3, writing: 4, export: 5 } as const
export type Priority = (typeof priorities)[keyof typeof priorities]

export interface RenderRequest {
  readonly node: GraphNode
  readonly grid: Grid
  readonly rect: Rect
  readonly tileSize: number
  readonly priority: Priority
  readonly signal?: AbortSignal
  /** Bits of a channel; 8 if not given. */
  readonly depth?: BitDepth
  /** What the threads shall rather keep for the next request. Default: all stages. */
  readonly keep?: Keep
  /** Called for each tile as soon as it is there. */
  onTile(pixels: Uint8ClampedArray<ArrayBuffer>, rect: Rect): void
}

interface FileRequest extends Omit<RenderRequest, 'onTile' | 'depth'> {
  readonly options: ExportOptions
  /** The space that the picture is worked on in. */
  readonly working: ColourSpace
  /** EXIF block of the file. */
  readonly exif?: Uint8Array<ArrayBuffer> | undefined
  /** How much is computed, 0-1. */
  readonly onProgress?: (done: number) => void
}

interface PoolOptions {
  readonly threads: number
  readonly start: StartThread
  /** Memory for results. */
  readonly budget: MemoryBudget
  /** A thread that begins no operation for so long is given up. */
  readonly stallSeconds?: number
}

/** Longer than any operation takes for a tile on a slow machine. */
const STALL_SECONDS = 40

type Asked = Pick<
  RenderWorker,
  'toneHistogram' | 'brightestColour' | 'findGlints' | 'colourAt' | 'coloursAt' | 'measureLight' | 'findPatch'
>

/** What all threads together may hold of their own between two photos of a run, bytes. */
const MOST_MEMORY_BETWEEN = 768e6

/**
 * The threads that compute pictures. A request is split into tiles; each tile always goes to the same thread, so that it finds there what it computed
 * before. An aborted request stops within one operation. A thread that dies, runs out of memory or is stuck is replaced, and its tile repeated once.
 */
export class RenderPool {
  private readonly lanes: readonly Lane[]
  private readonly queue: TaskQueue<Lane>
  private readonly photos = new Map<string, PhotoData>()
  private readonly columns: ColumnLanes
  private readonly results: SharedResults

  constructor({ threads, start, budget, stallSeconds = STALL_SECONDS }: PoolOptions) {
    this.results = new SharedResults(budget, threads)
    this.lanes = Array.from({ length: threads }, () => new Lane(start, this.photos, this.results, stallSeconds))
    this.queue = new TaskQueue(this.lanes)
    this.columns = new ColumnLanes(threads)
  }

  /** Starts all threads. @throws Error if one does not start */
  async started(): Promise<this> {
    await Promise.all(this.lanes.map((lane) => lane.started()))
    return this
  }

  /** Decodes a photo file in one thread and hands its levels to all. The id says how it is read. */
  async openPhoto(id: string, bytes: Uint8Array, fileName: string, reduce: Reduce = false): Promise<Opened> {
    const opened = await this.queue.run<Opened>(priorities.view, (lane) =>
      withSecondTry(lane, () => lane.call(async (worker) => worker.openPhoto(id, bytes, fileName, reduce))),
    )
    if ('photo' in opened) await Promise.all([opened.photo, opened.cover].map((one) => one && this.addPhoto(one)))
    return opened
  }

  /** A coarse picture of a file that takes long to open; nothing of others. */
  quickPicture(bytes: Uint8Array, fileName: string): Promise<QuickPicture | undefined> {
    return this.queue.run(priorities.view, (lane) => lane.call(async (worker) => worker.quickPicture(bytes, fileName)))
  }

  async addPhoto(photo: PhotoData): Promise<void> {
    this.photos.set(photo.id, photo)
    this.fitResults()
    await Promise.all(this.lanes.map((lane) => lane.addPhoto(photo)))
  }

  /** @param isNextComing whether another photo follows at once: then threads are kept, with what they hold in reason. A fresh one has everything to load and to compile anew */
  async dropPhoto(id: string, isNextComing = false): Promise<void> {
    // All that threads keep is of photos.
    this.results.letGo()
    for (const one of [id, coverId(id)]) {
      if (!this.photos.delete(one) && one !== id) continue
      const most = isNextComing ? MOST_MEMORY_BETWEEN / this.lanes.length : undefined
      await Promise.all(this.lanes.map((lane) => lane.dropPhoto(one, most)))
    }
    this.fitResults()
  }

  private fitResults(): void {
    this.results.fitTo(Math.max(0, ...[...this.photos.values()].map(({ width, height }) => width * height)))
  }

  /** Resolves when every tile has been handed over. @throws the signal's reason when aborted, RenderProblem when a tile cannot be computed */
  async render({ node, grid, rect, tileSize, priority, signal, keep, depth, onTile }: RenderRequest): Promise<void> {
    // Where one tile fails the others are not worth the time.
    const failed = new AbortController()
    const either = signal ? AbortSignal.any([signal, failed.signal]) : failed.signal
    const laneOf = this.columns.for(grid, rect, tileSize)
    await Promise.all(
      splitIntoTiles(rect, tileSize).map(async (tile, index) => {
        const work = (lane: Lane): Promise<Uint8ClampedArray<ArrayBuffer>> =>
          withSecondTry(
            lane,
            () => lane.call(async (worker, send, call) => worker.renderTile(send(node), grid, tile, call, keep, depth), either),
            either,
          )
        const drawn = this.queue.run(priority, work, { signal: either, lane: laneOf(tile, index) })
        drawn.catch((error: unknown) => failed.abort(error))
        const pixels = await drawn
        if (!either.aborted) onTile(pixels, tile)
      }),
    )
    signal?.throwIfAborted()
  }

  /** The whole rectangle as one block of interleaved 8-bit RGBA. */
  async renderPixels(
    request: Omit<RenderRequest, 'onTile' | 'depth'> & { onProgress?: (done: number) => void },
  ): Promise<Uint8ClampedArray<ArrayBuffer>> {
    const { rect, onProgress } = request
    const pixels = new Uint8ClampedArray(rect.width * rect.height * 4)
    let done = 0
    await this.render({
      ...request,
      onTile(tile, at) {
        for (let row = 0; row < at.height; row++) {
          const to = ((at.y - rect.y + row) * rect.width + (at.x - rect.x)) * 4
          pixels.set(tile.subarray(row * at.width * 4, (row + 1) * at.width * 4), to)
        }
        done += at.width * at.height
        onProgress?.(done / (rect.width * rect.height))
      },
    })
    return pixels
  }

  /** The file of a rectangle. Each band of it is written as soon as it is there, and let go. */
  async renderFile({ onProgress, options, exif, working, ...request }: FileRequest): Promise<Blob> {
    const { rect, signal } = request
    const { depth, space = 'srgb' } = options
    const format: FileFormat = fileFormats[options.format]
    const { asWhole } = format
    const problem = sizeProblem(options, rect)
    if (problem) throw new UserProblem(problem)
    const bands = new Bands(rect, depth)
    const written: Promise<EncodedBand>[] = []
    let done = 0
    await this.render({
      ...request,
      node: inSpaceNode(request.node, working, space),
      // Nobody asks for a part of a file again.
      keep: 'nothing',
      depth,
      onTile: (tile, at) => {
        for (const { index, band } of bands.add(tile, at)) {
          const writing = this.encodeBand(band, options, signal)
          // Whether it fails is asked below, when all is computed.
          writing.catch(() => undefined)
          written[index] = writing
        }
        done += at.width * at.height
        onProgress?.(done / (rect.width * rect.height))
      },
    })
    const all = await Promise.all(written)
    return format.join(asWhole ? [await this.encodeWhole(all, rect, options, signal)] : all, rect, { depth, space, exif })
  }

  /** What an opened photo shows: its sky, its horizon, distances. Between its steps goes whatever is wanted sooner. @throws the signal's reason when aborted */
  async readPhoto(id: string, signal?: AbortSignal): Promise<Reading> {
    // The thread that has begun goes on; a new one in its place begins anew.
    const lane = this.lanes.length - 1
    const step = (thread: Lane): Promise<Reading | undefined> =>
      withSecondTry(thread, () => thread.call(async (worker) => worker.readOn(id)))
    for (;;) {
      const found = await this.queue.run(priorities.measure, step, { lane, signal })
      if (found) return found
    }
  }

  toneHistogram(tones: GraphNode, photo: Size, channel: ToneChannel, signal?: AbortSignal): Promise<Uint32Array> {
    return this.ask(priorities.measure, tones, (worker, graph) => worker.toneHistogram(graph, photo, channel), signal)
  }

  brightestColour(tones: GraphNode, photo: Size, part: number): Promise<Rgb> {
    return this.ask(priorities.measure, tones, (worker, graph) => worker.brightestColour(graph, photo, part))
  }

  /** The brightest small spots of a picture. @param apart least distance, photo px */
  findGlints(tones: GraphNode, photo: Size, most: number, apart: number): Promise<FoundGlint[]> {
    return this.ask(priorities.measure, tones, (worker, graph) => worker.findGlints(graph, photo, most, apart))
  }

  /** Colour of a small patch of a picture, sRGB-encoded; the place in photo px. */
  colourAt(tones: GraphNode, photo: Size, x: number, y: number, signal?: AbortSignal): Promise<Rgb> {
    return this.ask(priorities.view, tones, (worker, graph) => worker.colourAt(graph, photo, x, y), signal)
  }

  /** The same for several places. */
  coloursAt(tones: GraphNode, photo: Size, places: readonly { readonly x: number; readonly y: number }[]): Promise<Rgb[]> {
    return this.ask(priorities.view, tones, (worker, graph) => worker.coloursAt(graph, photo, places))
  }

  /** Place, colour and extent of a light near a place of the picture. */
  measureLight(tones: GraphNode, photo: Size, x: number, y: number): Promise<MeasuredLight> {
    return this.ask(priorities.view, tones, (worker, graph) => worker.measureLight(graph, photo, x, y))
  }

  /** Where a spot of a picture may be mended from; places and radius in photo px. Undefined if there is no room for it. */
  findPatch(tones: GraphNode, photo: Size, x: number, y: number, radius: number): Promise<FoundPatch | undefined> {
    return this.ask(priorities.view, tones, (worker, graph) => worker.findPatch(graph, photo, x, y, radius))
  }

  dispose(): void {
    this.results.close()
    this.lanes.forEach((lane) => lane.close())
  }

  private encodeBand(band: Band, options: ExportOptions, signal: AbortSignal | undefined): Promise<EncodedBand> {
    // It is copied: the next thread needs it if this one dies.
    const write = (lane: Lane): Promise<EncodedBand> =>
      withSecondTry(lane, () => lane.call((worker) => worker.encodeBand(band, options), signal), signal)
    return this.queue.run(priorities.writing, write, { signal })
  }

  private encodeWhole(
    bands: readonly EncodedBand[],
    { width, height }: Size,
    options: ExportOptions,
    signal: AbortSignal | undefined,
  ): Promise<EncodedBand> {
    const rows = bands.flatMap(({ parts }) => parts)
    const write = (lane: Lane): Promise<EncodedBand> =>
      withSecondTry(lane, () => lane.call((worker) => worker.encodeWhole(rows, { width, height }, options), signal), signal)
    return this.queue.run(priorities.writing, write, { signal })
  }

  private ask<T>(priority: Priority, node: GraphNode, measure: (worker: Asked, graph: SentGraph) => T, signal?: AbortSignal): Promise<T> {
    const work = (lane: Lane): Promise<T> =>
      withSecondTry(lane, () => lane.call(async (worker, send) => measure(worker as unknown as Asked, send(node))))
    return this.queue.run(priority, work, { signal })
  }
}

/**
 * Does something once more with a new thread if the first gave no answer; where memory was short, as long as the next one keeps less.
 * @throws RenderProblem if the last one gives none either
 */
async function withSecondTry<T>(lane: Lane, work: () => Promise<T>, signal?: AbortSignal): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work()
    } catch (error) {
      // It was given up: nothing is wrong with the thread.
      if (signal?.aborted && error instanceof LaneFailure && error.failure === 'given up') throw signal.reason
      // It was not begun.
      if (error instanceof LaneFailure && error.failure === 'too costly') return said(error)
      if (lane.isClosed) return said(error)
      // Its memory cannot be trusted any more, or given back.
      const keepsLess = lane.retire(error)
      if (tries > 1 && !keepsLess) return said(error)
    }
  }
}

function said(error: unknown): never {
  throw error instanceof LaneFailure ? new RenderProblem(error.failure, error.nodeKey, error.message) : error
}
