import {
  findOwner,
  sceneGraph,
  spreadOf,
  turnedInFrame,
  type BrushStroke,
  type Frame,
  type GraphNode,
  type Look,
  type MaskListRef,
  type PictureSource,
} from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { canvasSettings } from '../../engine/canvasSpace'
import { renderTrouble } from '../../engine/renderTrouble'
import type { Compare, MaskView, PaintedStroke } from '../../scene/viewState'
import { clippedToMarks } from './clipMarks'
import { hatchPattern } from '../onPhoto/hatch'
import { LookLayer } from './LookLayer'
import { darknessToAlpha } from './shownPicture'
import { toScreen, type ViewPort } from '../onPhoto/viewPort'
import { placeOnGrid, type Painted } from './wanted'

/** Everything that decides what the view shows. */
export interface ViewWish {
  readonly source: PictureSource
  /** What is shown of the photo, and how it is turned. */
  readonly frame: Frame
  readonly port: ViewPort
  readonly compare: Compare
  /** What Split and Before show; the photo without it. */
  readonly against: PictureSource | undefined
  readonly splitAt: number
  readonly maskView: MaskView
  /** Whether places that are newly clipped are marked. */
  readonly marksClipped: boolean
  /** The list of masks that is seen. */
  readonly list: MaskListRef | undefined
  /** The mask that is seen alone; the whole list without it. */
  readonly maskId: string | undefined
  /** The effect or group that is edited, so that the next change will begin there. */
  readonly edited: string | undefined
  /** The effect or group that shows at several times its strength. */
  readonly exaggerated: string | undefined
  /** The stroke under the pen, and the scene without it. */
  readonly painted: (PaintedStroke & { readonly without: PictureSource }) | undefined
  /** Whether the scene plays. */
  readonly moving: boolean
  /** Whether something else shows the photo until its first exact picture is there. */
  readonly covered: boolean
}

/** Something in the view that cannot be computed, in words for the person. */
export interface ViewTrouble {
  readonly words: string
}

/** Draws the picture, the photo beside it, and the mask over it, on one canvas. */
export class PictureView {
  private readonly picture: LookLayer
  private readonly before: LookLayer
  private readonly mask: LookLayer
  private readonly hatch: LookLayer
  private readonly clipped: LookLayer
  private wish: ViewWish | undefined
  private frame = 0
  private told: string | undefined
  /** The stroke under the pen as it was drawn last. */
  private seen: BrushStroke | undefined

  constructor(
    pool: RenderPool,
    private readonly canvas: HTMLCanvasElement,
    private readonly onSettled: (settled: boolean) => void,
    private readonly onTrouble: (trouble: ViewTrouble | undefined) => void,
  ) {
    const redraw = (): void => this.schedule()
    this.picture = new LookLayer('picture', pool, redraw)
    this.before = new LookLayer('before', pool, redraw)
    this.mask = new LookLayer('mask', pool, redraw)
    this.hatch = new LookLayer('hatch', pool, redraw, darknessToAlpha)
    this.clipped = new LookLayer('clipped', pool, redraw, clippedToMarks)
  }

  show(wish: ViewWish): void {
    this.wish = wish
    const { frame } = wish
    const { photo } = wish.source
    const edited = findOwner(wish.source, wish.edited)
    const rather = edited && sceneGraph(wish.source, { kind: 'beneath', effectId: edited.id }).key
    const ask = (layer: LookLayer, look: Look, source = wish.source): void => {
      const node = turnedInFrame(sceneGraph(source, look), frame)
      const { port, moving, covered } = wish
      const painted = source === wish.source ? paintedIn(wish, node, look) : undefined
      layer.want({
        ...{ node, photo, frame, port, moving, covered },
        ...(rather !== undefined && { keep: { rather } }),
        ...(wish.painted && { stroke: wish.painted }),
        ...(painted && { painted }),
      })
    }
    if (this.showsMask(wish) && wish.list) {
      ask(wish.maskView === 'grey' ? this.mask : this.hatch, { kind: 'masks', of: wish.list, maskId: wish.maskId })
    }
    if (wish.compare !== 'after') ask(this.before, { kind: wish.against ? 'result' : 'photo' }, wish.against)
    if (wish.compare !== 'before' && wish.maskView !== 'grey') ask(this.picture, { kind: 'result', exaggerated: wish.exaggerated })
    if (wish.marksClipped && wish.compare !== 'before') ask(this.clipped, { kind: 'clipped' })
    this.tell(wish)
    this.schedule()
  }

  /** Computes anew what could not be computed. */
  tryAgain(): void {
    for (const layer of this.layers) layer.forgetTrouble()
    if (this.wish) this.show(this.wish)
  }

  dispose(): void {
    cancelAnimationFrame(this.frame)
    for (const layer of this.layers) layer.dispose()
  }

  private get layers(): readonly LookLayer[] {
    return [this.picture, this.before, this.mask, this.hatch, this.clipped]
  }

  private tell(wish: ViewWish): void {
    this.onSettled(this.isSettled(wish))
    const error = this.layers.map((layer) => layer.trouble).find((one) => one !== undefined)
    const words = error === undefined ? undefined : renderTrouble(error, wish.source, 'The picture')
    if (words === this.told) return
    this.told = words
    this.onTrouble(words === undefined ? undefined : { words })
  }

  private showsMask({ maskView, list, compare }: ViewWish): boolean {
    return maskView !== 'off' && list !== undefined && compare !== 'before'
  }

  private schedule(): void {
    cancelAnimationFrame(this.frame)
    this.frame = requestAnimationFrame(() => this.draw())
  }

  private draw(): void {
    const { wish } = this
    const context = wish && this.canvas.getContext('2d', canvasSettings(wish.source.photo.id))
    if (!context) return
    const { port } = wish
    const width = Math.round(port.width * port.pixelRatio)
    const height = Math.round(port.height * port.pixelRatio)
    if (this.canvas.width !== width) this.canvas.width = width
    if (this.canvas.height !== height) this.canvas.height = height
    context.clearRect(0, 0, width, height)
    if (wish.compare === 'before') this.before.draw(context, port)
    else {
      const grey = this.showsMask(wish) && wish.maskView === 'grey'
      const main = grey ? this.mask : this.picture
      main.draw(context, port)
      this.noteStroke(main.painted)
      if (this.showsMask(wish) && wish.maskView === 'hatch') this.drawHatch(context, port, width, height)
      if (wish.marksClipped) this.clipped.draw(context, port)
      if (wish.compare === 'split') this.drawSplit(context, wish, width, height)
    }
    this.tell(wish)
  }

  /** Time from where the pen was to the frame that shows it, in the browser's own list of measures; the benchmark reads it there. */
  private noteStroke(painted: PaintedStroke | undefined): void {
    if (painted && painted.stroke !== this.seen) performance.measure('stroke seen', { start: painted.at, end: performance.now() })
    this.seen = painted?.stroke
  }

  private isSettled(wish: ViewWish): boolean {
    if (wish.compare === 'before') return this.before.settled
    if (this.showsMask(wish)) return wish.maskView === 'grey' ? this.mask.settled : this.hatch.settled && this.picture.settled
    return this.picture.settled && (!wish.marksClipped || this.clipped.settled)
  }

  /** What is compared with at the left of the divider. */
  private drawSplit(context: CanvasRenderingContext2D, { port, frame, splitAt }: ViewWish, width: number, height: number): void {
    const at = Math.round(toScreen(port, frame.x + splitAt * frame.width, 0).x * port.pixelRatio)
    context.save()
    context.beginPath()
    context.rect(0, 0, Math.min(width, at), height)
    context.clip()
    this.before.draw(context, port)
    context.restore()
  }

  private drawHatch(context: CanvasRenderingContext2D, port: ViewPort, width: number, height: number): void {
    const sheet = document.createElement('canvas')
    sheet.width = width
    sheet.height = height
    const pen = sheet.getContext('2d')
    if (!pen) return
    this.hatch.draw(pen, port)
    pen.globalCompositeOperation = 'source-in'
    pen.fillStyle = hatchPattern(pen, port.pixelRatio)
    pen.fillRect(0, 0, width, height)
    context.drawImage(sheet, 0, 0)
  }
}

/** The stroke under the pen, if the look differs by it in its surroundings alone. */
function paintedIn({ painted, frame, port, source }: ViewWish, node: GraphNode, look: Look): Painted | undefined {
  if (!painted || frame.turn !== 0) return undefined
  const { id, stroke, at, without } = painted
  const { grid } = placeOnGrid({ photo: source.photo, frame, port }, 1)
  const hasIt = ({ operation, params }: GraphNode): boolean =>
    operation === 'brushMask' && (params['strokes'] as readonly BrushStroke[]).includes(stroke)
  const spread = spreadOf(node, hasIt, grid)
  return spread === undefined ? undefined : { id, stroke, at, spread, without: turnedInFrame(sceneGraph(without, look), frame).key }
}
