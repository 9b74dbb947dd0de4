import { transfer, type Remote } from 'comlink'
import type { ExportOptions } from '../codecs/encodePicture'
import type { Rgb } from '../colour/hex'
import type { GraphNode } from '../graph/node'
import type { FoundGlint } from '../measure/glints'
import type { MeasuredLight } from '../measure/places'
import type { ToneChannel } from '../operations/luminosityMask/luminosityMask'
import type { PhotoData } from '../photo/photoData'
import type { Grid, Size } from '../planes/grid'
import { splitIntoTiles, type Rect } from '../planes/rect'
import type { Opened, RenderWorker } from './renderWorker'
import { TaskQueue } from './taskQueue'

/** What is wanted sooner goes first. */
export const priorities = { view: 0, steps: 1, measure: 2, thumbnails: 3, export: 4 } as const
export type Priority = (typeof priorities)[keyof typeof priorities]

export interface RenderRequest {
  readonly node: GraphNode
  readonly grid: Grid
  readonly rect: Rect
  readonly tileSize: number
  readonly priority: Priority
  readonly signal?: AbortSignal
  /** Called for each tile as soon as it is there. */
  onTile(pixels: Uint8ClampedArray<ArrayBuffer>, rect: Rect): void
}

/**
 * The threads that compute pictures. A request is split into tiles; each tile always goes to the same thread,
 * so that it finds there what it computed before. An aborted request stops within one tile.
 */
export class RenderPool {
  private readonly queue: TaskQueue<Remote<RenderWorker>>

  constructor(
    private readonly workers: readonly Remote<RenderWorker>[],
    private readonly terminate: () => void,
  ) {
    this.queue = new TaskQueue(workers)
  }

  /** Decodes a photo file in one thread and hands its levels to all. */
  async openPhoto(id: string, bytes: Uint8Array, fileName: string, reduce = false): Promise<Opened> {
    const opened = await this.queue.run<Opened>(priorities.view, async (worker) => worker.openPhoto(id, bytes, fileName, reduce))
    if ('photo' in opened) await this.addPhoto(opened.photo)
    return opened
  }

  async addPhoto(photo: PhotoData): Promise<void> {
    await Promise.all(this.workers.map((worker) => worker.addPhoto(photo)))
  }

  async dropPhoto(id: string): Promise<void> {
    await Promise.all(this.workers.map((worker) => worker.dropPhoto(id)))
  }

  /** Resolves when every tile has been handed over. @throws the signal's reason when aborted */
  async render(request: RenderRequest): Promise<void> {
    const { node, grid, rect, tileSize, priority, signal, onTile } = request
    const tiles = splitIntoTiles(rect, tileSize)
    // A graph with many strokes is long: each thread gets it once, with the first tile that it takes.
    const told = new Set<number>()
    await Promise.all(
      tiles.map(async (tile, index) => {
        const lane = index % this.workers.length
        const run = (worker: Remote<RenderWorker>) => {
          const graph = told.has(lane) ? undefined : node
          told.add(lane)
          return worker.renderTile(node.key, graph, grid, tile)
        }
        const pixels = await this.queue.run(priority, run, { signal, lane })
        if (!signal?.aborted) onTile(pixels, tile)
      }),
    )
    signal?.throwIfAborted()
  }

  /** The whole rectangle as one block of interleaved 8-bit RGBA. */
  async renderPixels(
    request: Omit<RenderRequest, 'onTile'> & { onProgress?: (done: number) => void },
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

  toneHistogram(tones: GraphNode, photo: Size, channel: ToneChannel): Promise<Uint32Array> {
    return this.queue.run(priorities.measure, (worker) => worker.toneHistogram(tones, photo, channel))
  }

  brightestColour(tones: GraphNode, photo: Size, part: number): Promise<Rgb> {
    return this.queue.run(priorities.measure, (worker) => worker.brightestColour(tones, photo, part))
  }

  /** The brightest small spots of a picture. @param apart least distance, photo px */
  findGlints(tones: GraphNode, photo: Size, most: number, apart: number): Promise<FoundGlint[]> {
    return this.queue.run(priorities.measure, (worker) => worker.findGlints(tones, photo, most, apart))
  }

  /** Colour of a small patch of a picture, sRGB-encoded; the place in photo px. */
  colourAt(tones: GraphNode, photo: Size, x: number, y: number): Promise<Rgb> {
    return this.queue.run(priorities.view, (worker) => worker.colourAt(tones, photo, x, y))
  }

  /** Place, colour and extent of a light near a place of the picture. */
  measureLight(tones: GraphNode, photo: Size, x: number, y: number): Promise<MeasuredLight> {
    return this.queue.run(priorities.view, (worker) => worker.measureLight(tones, photo, x, y))
  }

  /** Encodes a picture; `pixels` is handed over and empty afterwards. */
  encode(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number, options: ExportOptions): Promise<Blob> {
    return this.queue.run(priorities.export, (worker) => worker.encode(transfer(pixels, [pixels.buffer]), width, height, options))
  }

  dispose(): void {
    this.terminate()
  }
}
