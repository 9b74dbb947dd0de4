import { instantiate } from '@welkinar/kernels'
import { transfer } from 'comlink'
import type { Codecs } from '../codecs/codecs'
import type { Band, EncodedBand } from '../codecs/formats/fileFormat'
import type { ExportOptions } from '../codecs/formats/registry'
import { LARGEST_MEGAPIXELS, openPhoto, TooLargeProblem } from '../codecs/openPhoto'
import { noPulse, SECONDS_PER_MEGAPIXEL, type Pulse } from '../photo/pulse'
import { sniffFormat } from '../codecs/sniffFormat'
import type { Rgb } from '../colour/hex'
import { Evaluator, type Keep } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { Planner } from '../graph/plan'
import { ResultStore } from '../graph/resultStore'
import { storeMemory, type StoreMemory } from '../graph/storeMemory'
import { findPatch, type FoundPatch } from '../measure/findPatch'
import { findGlints, type FoundGlint } from '../measure/glints'
import { colourAt, measureLight, type MeasuredLight } from '../measure/places'
import { brightestColour, toneHistogram } from '../measure/measurements'
import type { Reading } from '../model/reading'
import { UserProblem } from '../model/userProblem'
import { operations } from '../operations/registry'
import type { ToneChannel } from '../operations/masks/luminosityMask/luminosityMask'
import type { PhotoData } from '../photo/photoData'
import { coverId, isCutOut, spaceOfId } from '../photo/pictureIds'
import { withReductions } from '../photo/reducePhoto'
import { photoOf, type Grid, type Size } from '../planes/grid'
import type { Rect } from '../planes/rect'
import { readingSteps } from '../reading/readPhoto'
import type { Steps } from '../reading/steps'
import { checkCost, TooCostly } from '../render/cost'
import { renderTile, type BitDepth } from '../render/renderTile'
import { Diary } from './diary'
import { ReceivedNodes, type SentGraph } from './sentGraph'

/** A picture as the screen takes it, RGBA. */
export interface QuickPicture extends Size {
  readonly pixels: Uint8ClampedArray<ArrayBuffer>
}

/** Whether a photo over the size limit is opened all the same: at the first half, quarter … that is within it, or at just this size. */
export type Reduce = boolean | Size

/** Outcome of opening a file: errors do not cross a worker boundary with their class, so they are spelt out. */
export type Opened =
  | {
      readonly photo: PhotoData
      /** How much is there of a picture that was cut out. */
      readonly cover?: PhotoData
      readonly transparent: boolean
      /** Whether it has colours that were cut off at the border of sRGB. */
      readonly wide: boolean
      readonly notices: readonly string[]
    }
  | { readonly problem: string; readonly tooLarge: boolean }

/**
 * What one thread of the pool does. Everything crosses the boundary as plain data; pixels are transferred,
 * photo levels are shared.
 */
export class RenderWorker {
  private readonly nodes = new ReceivedNodes()
  /** Number of the call that is being answered, if it has one. */
  private answering = 0
  /** The photo that is being read, as far as that has come. */
  private reading: { readonly id: string; readonly steps: Steps<Reading> } | undefined
  private pulse: Pulse = noPulse
  /** Writes down that a node is computed. */
  private begin: (key: string) => void = () => undefined
  /** Pictures that do not cost too much, by the keys of their nodes. */
  private readonly affordable = new Set<string>()
  private readonly planner: Planner

  private constructor(
    private readonly evaluator: Evaluator,
    private readonly codecs: Codecs,
  ) {
    this.planner = new Planner(operations, evaluator.kernels)
  }

  static async create(kernels: WebAssembly.Module, codecs: Codecs): Promise<RenderWorker> {
    const options = { kernels: await instantiate(kernels, { env: {} }), operations, store: ALONE }
    return new RenderWorker(new Evaluator(options), codecs)
  }

  /**
   * @param memory where all threads keep results; or bytes that those of this one may take
   * @param lane its number among them
   * @param rest what it may keep besides, bytes
   */
  useResults(memory: StoreMemory | number, lane: number, rest: number): void {
    this.evaluator.share(new ResultStore(typeof memory === 'number' ? storeMemory(memory, false) : memory, lane), rest)
  }

  /** Decodes a file and reduces it, cut out if its id says so. The id says how it is read. */
  async openPhoto(id: string, bytes: Uint8Array, fileName: string, reduce: Reduce): Promise<Opened> {
    try {
      const { full, cover, ...rest } = await openPhoto(bytes, fileName, this.codecs, {
        allowLarge: reduce !== false,
        space: spaceOfId(id),
        cutOut: isCutOut(id),
        pulse: this.pulse,
      })
      const { kernels } = this.evaluator
      const photo = withinLimit(withReductions(kernels, id, full, this.pulse), reduce)
      return { photo, ...(cover && { cover: withinLimit(withReductions(kernels, coverId(id), cover, this.pulse), reduce) }), ...rest }
    } catch (error) {
      if (!(error instanceof UserProblem)) throw error
      return { problem: error.message, tooLarge: error instanceof TooLargeProblem }
    }
  }

  /** A coarse picture of a file that takes long to open, RGBA; nothing of others, or if it cannot be read: opening it says why. */
  async quickPicture(bytes: Uint8Array, fileName: string): Promise<QuickPicture | undefined> {
    const sniffed = sniffFormat(bytes, fileName)
    const decoded = 'format' in sniffed ? await this.codecs.decodeQuickly(sniffed.format, bytes).catch(() => undefined) : undefined
    if (!decoded) return undefined
    const { width, height, data } = decoded
    const pixels = new Uint8ClampedArray(data.length)
    const perCode = data instanceof Uint16Array ? 257 : 1
    for (let i = 0; i < data.length; i++) pixels[i] = (data[i] ?? 0) / perCode
    return transfer({ width, height, pixels }, [pixels.buffer])
  }

  addPhoto(photo: PhotoData): void {
    this.evaluator.addPhoto(photo)
  }

  /** Forgets a photo and all results. @returns the memory that the thread holds nevertheless, bytes: it can grow only */
  dropPhoto(id: string): number {
    this.evaluator.dropPhoto(id)
    if (this.reading?.id === id) this.reading = undefined
    return this.evaluator.kernels.memory.buffer.byteLength
  }

  /** Writes down what it computes in memory that the pool sees. */
  keepDiary(memory: SharedArrayBuffer): void {
    const diary = new Diary(memory)
    this.pulse = (seconds) => diary.beat(seconds)
    this.begin = (key) => diary.begin(this.nodes.indexOf(key))
    const goOn = (): void => {
      if (this.answering > 0 && diary.isGivenUp(this.answering) && !this.evaluator.blocks.isAwaited) throw new GivenUp()
    }
    this.evaluator.onRun = ({ key }) => {
      goOn()
      this.begin(key)
    }
    this.evaluator.blocks.onWait = () => {
      goOn()
      diary.beat()
    }
  }

  /** Interleaved RGBA of one tile. @param call its number, by which it can be given up */
  renderTile(graph: SentGraph, grid: Grid, rect: Rect, call = 0, keep?: Keep, depth?: BitDepth): Uint8ClampedArray<ArrayBuffer> {
    this.answering = call
    try {
      const node = this.nodes.receive(graph)
      this.checkCost(node, grid)
      const pixels = renderTile(this.evaluator, node, grid, rect, keep, depth)
      return transfer(pixels, [pixels.buffer])
    } finally {
      this.answering = 0
    }
  }

  /** @throws TooCostly naming, by the diary, the node that costs the most */
  private checkCost(node: GraphNode, grid: Grid): void {
    if (this.affordable.has(node.key)) return
    try {
      checkCost(node, photoOf(grid), this.planner)
    } catch (error) {
      if (error instanceof TooCostly) this.begin(error.node)
      throw error
    }
    if (this.affordable.size > MOST_AFFORDABLE) this.affordable.clear()
    this.affordable.add(node.key)
  }

  /** Reads a part of what an opened photo shows by itself; what it shows, when that was the last. */
  readOn(id: string): Reading | undefined {
    if (this.reading?.id !== id) this.reading = { id, steps: readingSteps(this.evaluator.kernels, this.evaluator.photo(id)) }
    const { done, value } = this.reading.steps.next()
    if (done) this.reading = undefined
    return value
  }

  toneHistogram(tones: SentGraph, photo: Size, channel: ToneChannel): Uint32Array {
    return this.measured(tones, (node) => toneHistogram(this.evaluator, node, photo, channel))
  }

  brightestColour(tones: SentGraph, photo: Size, part: number): Rgb {
    return this.measured(tones, (node) => brightestColour(this.evaluator, node, photo, part))
  }

  findGlints(tones: SentGraph, photo: Size, most: number, apart: number): FoundGlint[] {
    return this.measured(tones, (node) => findGlints(this.evaluator, node, photo, { most, apart }))
  }

  colourAt(tones: SentGraph, photo: Size, x: number, y: number): Rgb {
    return this.measured(tones, (node) => colourAt(this.evaluator, node, photo, x, y))
  }

  coloursAt(tones: SentGraph, photo: Size, places: readonly { readonly x: number; readonly y: number }[]): Rgb[] {
    return this.measured(tones, (node) => places.map(({ x, y }) => colourAt(this.evaluator, node, photo, x, y)))
  }

  measureLight(tones: SentGraph, photo: Size, x: number, y: number): MeasuredLight {
    return this.measured(tones, (node) => measureLight(this.evaluator, node, photo, x, y))
  }

  findPatch(tones: SentGraph, photo: Size, x: number, y: number, radius: number): FoundPatch | undefined {
    return this.measured(tones, (node) => findPatch(this.evaluator, node, photo, x, y, radius))
  }

  /** Measures a picture, and gives back what memory that took beyond the budget. */
  private measured<T>(tones: SentGraph, measure: (node: GraphNode) => T): T {
    const value = measure(this.nodes.receive(tones))
    this.evaluator.trim()
    return value
  }

  /** Rows of a file. Blobs cross to the page without a copy. */
  encodeBand(band: Band, options: ExportOptions): Promise<EncodedBand> {
    this.pulse(secondsFor(band))
    return this.codecs.encodeBand(band, options, this.evaluator.kernels)
  }

  /** All rows of a file that is encoded as a whole. */
  encodeWhole(rows: readonly Blob[], size: Size, options: ExportOptions): Promise<EncodedBand> {
    this.pulse(secondsFor(size))
    return this.codecs.encodeWhole(rows, size, options)
  }
}

/** What the slowest codec may take for so many pixels. */
function secondsFor({ width, height }: Size): number {
  return SECONDS_PER_MEGAPIXEL * ((width * height) / 1e6)
}

/** Bytes of results of a thread that was not told what it shares. */
const ALONE = 64e6

/** So many pictures are remembered. */
const MOST_AFFORDABLE = 2000

/** The call is no longer wanted. */
class GivenUp extends Error {
  override readonly name = 'GivenUp'
}

/** The photo without the levels that are over the limit, or over the size that is asked for, if it has that. */
function withinLimit(photo: PhotoData, reduce: Reduce): PhotoData {
  const asked = photo.levels.findIndex(
    ({ width, height }) => typeof reduce === 'object' && width === reduce.width && height === reduce.height,
  )
  const levels = photo.levels.filter((level, at) => (asked < 0 ? level.width * level.height <= LARGEST_MEGAPIXELS * 1e6 : at >= asked))
  const [full] = levels
  return full ? { ...photo, width: full.width, height: full.height, levels } : photo
}
