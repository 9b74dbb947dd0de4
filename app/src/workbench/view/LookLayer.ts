import { contains, expand, gridAt, intersect, outside, regionOnGrid, sameRect, type GraphNode, type Grid, type Rect } from '@welkinar/core'
import { priorities, type RenderPool, type RenderRequest } from '@welkinar/core/pool'
import { imageOf } from '../../engine/canvasSpace'
import { contextOf, drawPlaced, type Shown } from './shownPicture'
import type { PaintedStroke } from '../../scene/viewState'
import { visibleRegion, type ViewPort } from '../onPhoto/viewPort'
import { area, changedBy, keyOf, placeOnGrid, type Wanted } from './wanted'

/** An exact picture that would take longer than this has a coarse one before it. */
const COARSE_BUDGET_MS = 34
/** The next coarse picture is made smaller if this one took longer, and larger if it took less than the second. */
const COARSE_LATE_MS = 60
const COARSE_EARLY_MS = 20
const COARSE_FACTORS = { least: 2, first: 4, most: 32 }
/** How much a moving picture is reduced at least. */
const MOVING_FACTOR = 2
const TILE = 320
const MOST_MEASURES = 2000
/** After so long without a new wish what lies around the view is computed, as far as so many px from it, so that it is there when it is moved. */
const AHEAD_AFTER_MS = 500
const AHEAD_REACH = TILE / 2
/** The same for the middle of the photo, pixel for pixel: it is more to do, and less likely to be wanted at once. */
const CLOSE_AFTER_MS = 1500
/** Longer side of the small picture of all of the photo, px. */
const BACKDROP_SIDE = 500

/**
 * One look at the photo in the view. The latest wish counts: a coarse picture comes first when the exact one
 * would be late, and the exact one is dropped as soon as something newer is wanted.
 */
export class LookLayer {
  private shown: Shown | undefined
  /** The last exact picture; what it shows of the wished look stays sharp while the rest is computed. */
  private sharp: Shown | undefined
  /** The last picture of all of the photo; it is what a movement of the view shows first. */
  private backdrop: Shown | undefined
  private wanted: Wanted | undefined
  private exact: AbortController | undefined
  private ahead: AbortController | undefined
  private running = false
  private msPerPixel = 0
  private nextFactor = COARSE_FACTORS.first
  private doneKey = ''
  private wantedAt = 0
  /** Key of the look that was wanted first. */
  private firstLook: string | undefined
  private failed: { readonly key: string; readonly error: unknown } | undefined

  /**
   * @param name for the measured times
   * @param onChange called when there is something new to draw
   * @param asCover makes of the pixels what is drawn over another picture
   */
  constructor(
    private readonly name: string,
    private readonly pool: RenderPool,
    private readonly onChange: () => void,
    private readonly asCover?: (pixels: Uint8ClampedArray, rect: Rect) => void,
  ) {}

  want(wanted: Wanted): void {
    this.wanted = wanted
    this.wantedAt = performance.now()
    this.firstLook ??= wanted.node.key
    const key = keyOf(wanted)
    if (key === this.doneKey || key === this.failed?.key) return
    this.failed = undefined
    this.ahead?.abort()
    // Under the pen each picture is a small part: one that is begun is shown.
    if (!wanted.moving && !wanted.painted) this.exact?.abort()
    if (!this.running) void this.run()
  }

  /** Whether the exact picture of the last wish is shown, and nothing older is under way that would replace it. */
  get settled(): boolean {
    return this.wanted !== undefined && !this.running && keyOf(this.wanted) === this.doneKey
  }

  /** The stroke under the pen, as far as what is drawn has it. */
  get painted(): PaintedStroke | undefined {
    return this.shown?.painted
  }

  /** Why the last wish cannot be fulfilled, if it cannot. */
  get trouble(): unknown {
    return this.wanted && this.failed?.key === keyOf(this.wanted) ? this.failed.error : undefined
  }

  /** Lets the same wish be tried again. */
  forgetTrouble(): void {
    this.failed = undefined
  }

  dispose(): void {
    this.wanted = undefined
    this.exact?.abort()
    this.ahead?.abort()
  }

  /** Draws what there is, in canvas px of the view. */
  draw(context: CanvasRenderingContext2D, port: ViewPort): void {
    for (const picture of this.seen(this.shown?.node)) drawPlaced(context, port, picture)
  }

  /** The pictures of a look that are drawn over one another. Of what is drawn over another only one can be. */
  private seen(look: GraphNode | undefined): readonly Shown[] {
    const all = this.asCover ? [this.shown] : [this.backdrop, this.shown, this.sharp]
    return [...new Set(all)].filter((one) => one !== undefined).filter(({ node }) => node.key === look?.key)
  }

  private async run(): Promise<void> {
    this.running = true
    while (this.wanted && keyOf(this.wanted) !== this.doneKey && keyOf(this.wanted) !== this.failed?.key) {
      const { wanted } = this
      try {
        await this.fulfil(wanted)
      } catch (error) {
        this.failed = { key: keyOf(wanted), error }
      }
    }
    this.running = false
    this.onChange()
  }

  /** Shows the wish: coarse first if the exact picture would be late. */
  private async fulfil(wanted: Wanted): Promise<void> {
    const key = keyOf(wanted)
    const started = this.wantedAt
    const missing = this.missing(wanted)
    const factor = this.paintedOver(wanted) ? 1 : this.coarseFactor(missing)
    if (wanted.moving) {
      await this.paint(wanted, Math.max(MOVING_FACTOR, factor))
      this.doneKey = key
      this.onChange()
      return
    }
    // Where the same look is on the screen already, at another scale, it is the first answer itself.
    if (factor > 1 && !this.shows(wanted) && !(wanted.covered && wanted.node.key === this.firstLook)) {
      const begun = performance.now()
      await this.paint(wanted, factor, true, this.asCover ? undefined : missing)
      const took = performance.now() - begun
      if (took > COARSE_LATE_MS) this.nextFactor = Math.min(COARSE_FACTORS.most, 2 * factor)
      else if (took < COARSE_EARLY_MS) this.nextFactor = Math.max(COARSE_FACTORS.least, factor / 2)
      this.note('coarse', started)
    }
    if (this.wanted !== wanted) return
    // Under the pen the next picture comes at once: an exact one of all would only be in its way.
    if (wanted.stroke && factor > 1) {
      this.doneKey = key
      this.onChange()
      return
    }
    this.exact = new AbortController()
    if (await this.paintExact(wanted, this.exact.signal)) {
      this.doneKey = key
      if (factor === 1) this.note('coarse', started)
      this.note('exact', started)
      this.onChange()
      if (!wanted.painted) this.lookAhead(wanted)
    }
  }

  /** Whether what is shown is the wished look, and covers all of the wish. */
  private shows({ node, frame, port }: Wanted): boolean {
    if (this.shown?.node.key !== node.key) return false
    const region = visibleRegion(port, frame)
    return this.seen(node).some(({ grid, rect }) => contains(rect, regionOnGrid(region, grid)))
  }

  /** What the last exact picture shows of a wish already, if it is of the same look and scale. */
  private kept(wanted: Wanted): Shown | undefined {
    const { node } = wanted
    const { grid } = placeOnGrid(wanted, 1)
    const { sharp } = this
    if (sharp?.grid.width !== grid.width || sharp.grid.height !== grid.height) return undefined
    return this.paintedOver(wanted) ?? (sharp.node.key === node.key && !sharp.painted ? sharp : undefined)
  }

  /** The last exact picture, if only the stroke under the pen, or more of it, is to come into it. */
  private paintedOver({ painted }: Wanted): Shown | undefined {
    const { sharp } = this
    if (!painted || !sharp) return undefined
    return sharp.painted?.id === painted.id || sharp.node.key === painted.without ? sharp : undefined
  }

  /** The parts of a wish that are not exact on the screen yet. */
  private missing(wanted: Wanted): readonly Rect[] {
    const { grid, rect } = placeOnGrid(wanted, 1)
    const kept = this.kept(wanted)
    if (!kept) return [rect]
    const { painted } = wanted
    if (!painted) return outside(rect, kept.rect)
    const changed = intersect(changedBy(painted, kept.painted?.stroke, wanted.photo, grid), intersect(rect, kept.rect))
    return [...outside(rect, kept.rect), ...(area([changed]) > 0 ? [changed] : [])]
  }

  /**
   * Computes what a movement of the view would bring into it: a small picture of all of the photo, and what lies around; where all of the photo is in view, its middle
   * pixel for pixel. The threads keep it.
   */
  private lookAhead(wanted: Wanted): void {
    const { node, photo, frame, port } = wanted
    const { grid, rect } = placeOnGrid(wanted, 1)
    const all = regionOnGrid(frame, grid)
    const { signal } = (this.ahead = new AbortController())
    // What is in view must not give way to it.
    const quiet = { node, tileSize: TILE, priority: priorities.thumbnails, signal, keep: 'result', onTile: () => undefined } as const
    const start = async (): Promise<void> => {
      if (sameRect(rect, all)) {
        await this.pool.render({ ...quiet, ...placeOnGrid({ photo, frame, port: { ...port, zoom: 1 / port.pixelRatio } }, 1) })
        return
      }
      if (this.backdrop?.node.key !== node.key && !this.asCover) {
        const small: Grid = { ...gridAt(photo, Math.min(1, BACKDROP_SIDE / Math.max(frame.width, frame.height))), draft: true }
        const whole = regionOnGrid(frame, small)
        const canvas = new OffscreenCanvas(whole.width, whole.height)
        await this.render({ node, photo, priority: quiet.priority, signal }, small, whole, canvas)
        this.backdrop = { node, canvas, grid: small, rect: whole }
      }
      const around = outside(intersect(expand(rect, AHEAD_REACH), all), rect)
      await Promise.all(around.map((part) => this.pool.render({ ...quiet, grid, rect: part })))
    }
    const timer = setTimeout(() => void start().catch(() => undefined), sameRect(rect, all) ? CLOSE_AFTER_MS : AHEAD_AFTER_MS)
    signal.addEventListener('abort', () => clearTimeout(timer), { once: true })
  }

  /** Times from wish to picture, in the browser's own list of measures; the benchmark reads them there. */
  private note(kind: 'coarse' | 'exact', start: number): void {
    performance.measure(`${this.name}, ${kind}`, { start, end: performance.now() })
    if (performance.getEntriesByType('measure').length > MOST_MEASURES) performance.clearMeasures()
  }

  private coarseFactor(missing: readonly Rect[]): number {
    if (!this.shown) return this.nextFactor
    return area(missing) * this.msPerPixel <= COARSE_BUDGET_MS ? 1 : this.nextFactor
  }

  /**
   * A small picture, shown when it is complete.
   * @param draft whether it may differ a little from the exact one
   * @param parts what is wanted of it, on the exact grid; all if left out
   */
  private async paint(wanted: Wanted, factor: number, draft = false, parts?: readonly Rect[]): Promise<void> {
    const { grid: exact, rect } = placeOnGrid(wanted, factor, parts)
    const grid: Grid = draft ? { ...exact, draft: true } : exact
    if (rect.width === 0 || rect.height === 0) return
    const canvas = new OffscreenCanvas(rect.width, rect.height)
    await this.render(wanted, grid, rect, canvas)
    this.shown = { node: wanted.node, canvas, grid, rect, painted: wanted.stroke }
    // What was exact before is no longer shown.
    this.doneKey = ''
    this.onChange()
  }

  /** The exact picture: what was exact before stays, the rest is computed. Returns whether it was finished. */
  private async paintExact(wanted: Wanted, signal: AbortSignal): Promise<boolean> {
    const { grid, rect } = placeOnGrid(wanted, 1)
    if (rect.width === 0 || rect.height === 0) return true
    const [kept, missing] = [this.kept(wanted), this.missing(wanted)]
    const started = performance.now()
    const canvas = new OffscreenCanvas(rect.width, rect.height)
    if (kept) contextOf(canvas, wanted.photo.id).drawImage(kept.canvas, kept.rect.x - rect.x, kept.rect.y - rect.y)
    try {
      await Promise.all(missing.map((part) => this.render({ ...wanted, signal }, grid, part, canvas, rect)))
    } catch (error) {
      if (signal.aborted) return false
      throw error
    }
    if (!kept) this.msPerPixel = (performance.now() - started) / area(missing)
    this.shown = this.sharp = { node: wanted.node, canvas, grid, rect, painted: wanted.painted }
    if (sameRect(rect, regionOnGrid(wanted.frame, grid))) this.backdrop = this.shown
    return true
  }

  /** Computes a part of the picture and puts it into a canvas that shows `whole`. */
  private async render(
    { node, photo, ...request }: Pick<Wanted, 'node' | 'photo'> & Partial<Pick<RenderRequest, 'priority' | 'signal'>>,
    grid: Grid,
    part: Rect,
    canvas: OffscreenCanvas,
    whole = part,
  ): Promise<void> {
    const context = contextOf(canvas, photo.id)
    await this.pool.render({
      tileSize: TILE,
      priority: priorities.view,
      ...request,
      node,
      grid,
      rect: part,
      onTile: (pixels, at) => {
        this.asCover?.(pixels, at)
        context.putImageData(imageOf(pixels, at, photo.id), at.x - whole.x, at.y - whole.y)
      },
    })
  }
}
