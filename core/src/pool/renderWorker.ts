import { instantiate } from '@welkinar/kernels'
import { transfer } from 'comlink'
import { encodePicture, type ExportOptions } from '../codecs/encodePicture'
import type { LoadCodec } from '../codecs/codecModules'
import { LARGEST_MEGAPIXELS, openPhoto, TooLargeProblem } from '../codecs/openPhoto'
import type { Rgb } from '../colour/hex'
import { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { findGlints, type FoundGlint } from '../measure/glints'
import { colourAt, measureLight, type MeasuredLight } from '../measure/places'
import { brightestColour, toneHistogram } from '../measure/measurements'
import { UserProblem } from '../model/userProblem'
import type { ToneChannel } from '../operations/luminosityMask/luminosityMask'
import type { PhotoData } from '../photo/photoData'
import { withReductions } from '../photo/reducePhoto'
import type { Grid, Size } from '../planes/grid'
import type { Rect } from '../planes/rect'
import { renderTile } from '../render/renderTile'

/** Graphs that a thread remembers; far more than are ever under way at a time. */
const MOST_GRAPHS = 256

/** Outcome of opening a file: errors do not cross a worker boundary with their class, so they are spelt out. */
export type Opened =
  { readonly photo: PhotoData; readonly notices: readonly string[] } | { readonly problem: string; readonly tooLarge: boolean }

/**
 * What one thread of the pool does. Everything crosses the boundary as plain data; pixels are transferred,
 * photo levels are shared.
 */
export class RenderWorker {
  private readonly graphs = new Map<string, GraphNode>()

  private constructor(
    private readonly evaluator: Evaluator,
    private readonly loadCodec: LoadCodec,
  ) {}

  static async create(kernels: WebAssembly.Module, cacheBytes: number, loadCodec: LoadCodec): Promise<RenderWorker> {
    return new RenderWorker(new Evaluator(await instantiate(kernels, { env: {} }), cacheBytes), loadCodec)
  }

  /** Decodes a file and reduces it. `reduce` opens a photo beyond the limit at a size below it. */
  async openPhoto(id: string, bytes: Uint8Array, fileName: string, reduce: boolean): Promise<Opened> {
    try {
      const { full, notices } = await openPhoto(bytes, fileName, this.loadCodec, reduce)
      const photo = withinLimit(withReductions(this.evaluator.kernels, id, full))
      return { photo, notices }
    } catch (error) {
      if (!(error instanceof UserProblem)) throw error
      return { problem: error.message, tooLarge: error instanceof TooLargeProblem }
    }
  }

  addPhoto(photo: PhotoData): void {
    this.evaluator.addPhoto(photo)
  }

  dropPhoto(id: string): void {
    this.evaluator.dropPhoto(id)
  }

  /** Interleaved 8-bit RGBA of one tile. The graph comes with the first tile that needs it, then its key is enough. */
  renderTile(key: string, node: GraphNode | undefined, grid: Grid, rect: Rect): Uint8ClampedArray<ArrayBuffer> {
    const pixels = renderTile(this.evaluator, this.graphOf(key, node), grid, rect)
    return transfer(pixels, [pixels.buffer])
  }

  private graphOf(key: string, node: GraphNode | undefined): GraphNode {
    const graph = node ?? this.graphs.get(key)
    if (!graph) throw new Error(`The graph ${key} was not sent to this thread.`)
    this.graphs.delete(key)
    this.graphs.set(key, graph)
    for (const oldest of this.graphs.keys()) {
      if (this.graphs.size <= MOST_GRAPHS) break
      this.graphs.delete(oldest)
    }
    return graph
  }

  toneHistogram(tones: GraphNode, photo: Size, channel: ToneChannel): Uint32Array {
    return toneHistogram(this.evaluator, tones, photo, channel)
  }

  brightestColour(tones: GraphNode, photo: Size, part: number): Rgb {
    return brightestColour(this.evaluator, tones, photo, part)
  }

  findGlints(tones: GraphNode, photo: Size, most: number, apart: number): FoundGlint[] {
    return findGlints(this.evaluator, tones, photo, { most, apart })
  }

  colourAt(tones: GraphNode, photo: Size, x: number, y: number): Rgb {
    return colourAt(this.evaluator, tones, photo, x, y)
  }

  measureLight(tones: GraphNode, photo: Size, x: number, y: number): MeasuredLight {
    return measureLight(this.evaluator, tones, photo, x, y)
  }

  /** The file of a picture, as a blob, which crosses to the page without a copy. */
  encode(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number, options: ExportOptions): Promise<Blob> {
    return encodePicture(pixels, width, height, options, this.loadCodec)
  }
}

/** The photo without the levels that are over the limit. */
function withinLimit(photo: PhotoData): PhotoData {
  const levels = photo.levels.filter((level) => level.width * level.height <= LARGEST_MEGAPIXELS * 1e6)
  const [full] = levels
  return full ? { ...photo, width: full.width, height: full.height, levels } : photo
}
