import { graphNode, type GraphNode } from '../../../graph/node'
import type { Kernels, Operation, RunContext } from '../../../graph/operation'
import { gridBounds, type Grid } from '../../../planes/grid'
import { clampInto, expand, type Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'

export type RadialBlurParameters = {
  readonly kind: 'zoom' | 'spin'
  /** The place that stays, photo px; it may lie outside the frame. */
  readonly x: number
  readonly y: number
  /** zoom: the way in px at the corner that is farthest from that place. spin: the arc in degrees. */
  readonly strength: number
  /** zoom: whether light is smeared outward only, or to both sides. A spin goes to both sides. */
  readonly sides: 'outward' | 'both'
  /** The finest detail of the picture that counts, photo px; all of it if it is not given. */
  readonly detail?: number
}

/** Between two passes so many pixels beyond the border are known too; farther out the last ones are repeated. */
const BEYOND = 160

/** A pixel is read from `centre` + M (pixel - centre), in grid px. */
type Matrix = readonly [number, number, number, number]

/** Side of the parts it is computed in, grid px. */
const LARGE_BLOCK = 1024
/** Above these strengths detail is halved, and halved again. A spin reads in all directions, which takes three times as long. */
const giveWay = { zoom: [2000], spin: [30, 60] } as const

/** Places read at a time; so many passes, each between the places of the one before, make a smear of any length. */
const MOST_TAPS = 8
/** A zoom never reaches the middle itself. */
const NEAREST = 0.02

/**
 * Mean along the rays of a place (zoom) or along circles about it (spin). Zoom: the mean over the pixels that are seen when the picture is scaled about the place by factors from
 * 1 to 1 + strength / farthest corner, evenly in the logarithm; so a way is short near the place and long far from it. One place for each grid pixel of the longest way, read bilinearly;
 * the border repeats.
 */
export const radialBlur: Operation<RadialBlurParameters> = {
  name: 'radialBlur',
  // What goes very far gives way in its finest detail, or a tile of a large photo would take many seconds.
  pitch: ({ kind, strength, detail = 1 }) => Math.max(detail, ...giveWay[kind].map((from, i) => (strength > from ? 2 ** (i + 1) : 1))),
  // Of a small block far more would be smeared than is kept.
  block: () => LARGE_BLOCK,
  need(params, rect, grid, kernels) {
    return passesOf(params, grid, kernels).reduceRight((needed, matrices) => readRect(params, grid, needed, matrices), rect)
  },
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const input = inputAt(inputs, 0)
    const passes = passesOf(params, grid, kernels)
    // What each pass has to give, so that the next one finds what it reads.
    const rects = passes.map((_, index) =>
      passes
        .slice(index + 1)
        .reduceRight((needed, matrices) => clampInto(readRect(params, grid, needed, matrices), expand(gridBounds(grid), BEYOND)), rect),
    )
    const channels = input.kind === 'field' ? input.planes.slice(0, 1) : input.planes
    let from = input.rect
    // Each pass reads from one and writes to the other.
    const most = Math.max(...[from, ...rects].map(({ width, height }) => width * height))
    let [picture, next] = [context.scratch(most * 16), context.scratch(most * 16)]
    kernels.interleave(channels[0] ?? 0, channels[1] ?? 0, channels[2] ?? 0, channels[3] ?? 0, from.width * from.height, picture)
    passes.forEach((matrices, index) => {
      const to = rects[index] ?? rect
      pass(context, params, matrices, picture, from, next, to)
      ;[picture, next, from] = [next, picture, to]
    })
    const count = rect.width * rect.height
    const planes = channels.map((_, channel) => {
      const out = context.plane(count)
      kernels.takeChannel(picture, channel, count, out)
      return out
    })
    return { kind: input.kind, rect, planes }
  },
}

/** `input` smeared, or `input` itself when there is nothing to do. */
export function radialBlurNode(input: GraphNode, params: RadialBlurParameters): GraphNode {
  return params.strength > 0 ? graphNode('radialBlur', params, [input]) : input
}

function pass(
  context: RunContext,
  params: RadialBlurParameters,
  matrices: readonly Matrix[],
  picture: number,
  from: Rect,
  out: number,
  to: Rect,
): void {
  const { kernels, grid } = context
  const block = context.scratch(matrices.length * 32)
  new Float64Array(kernels.memory.buffer, block, matrices.length * 4).set(matrices.flat())
  kernels.meanAlong(
    ...([picture, from.x, from.y, from.width, from.height, out, to.x, to.y, to.width, to.height] as const),
    ...([params.x / grid.pitchX, params.y / grid.pitchY, matrices.length, block] as const),
  )
}

/** Distance of the farthest corner of the picture, photo px. */
function farthestCorner({ x, y }: RadialBlurParameters, grid: Grid): number {
  const [right, bottom] = [grid.width * grid.pitchX, grid.height * grid.pitchY]
  const [dx, dy] = [Math.max(Math.abs(x), Math.abs(right - x)), Math.max(Math.abs(y), Math.abs(bottom - y))]
  return Math.max(1, Math.sqrt(dx * dx + dy * dy))
}

/** The longest way of a smear, grid px. */
function longestWay(params: RadialBlurParameters, grid: Grid): number {
  const radians = (params.strength * Math.PI) / 180
  const way = params.kind === 'zoom' ? params.strength : Math.min(2 * Math.PI, radians) * farthestCorner(params, grid)
  return way / Math.min(grid.pitchX, grid.pitchY)
}

/** About how many pixels each pass gives for a block in the middle of the picture. */
function smearedFor(params: RadialBlurParameters, grid: Grid, side: number): number[] {
  const passes = radialPasses(params, grid)
  // About its middle a spin moves less than at the far corner.
  const way = longestWay(params, grid) * (params.kind === 'spin' ? 0.5 : 1)
  return passes.map((taps, index) => {
    const ahead = way * (1 - taps ** (index + 1) / taps ** passes.length)
    return Math.min(grid.width + 2 * BEYOND, side + ahead) * Math.min(grid.height + 2 * BEYOND, side + ahead)
  })
}

/** How many places are read for a rectangle of whole blocks. */
export function radialReads(params: RadialBlurParameters, grid: Grid, { width, height }: Pick<Rect, 'width' | 'height'>): number {
  const blocks = Math.ceil(width / LARGE_BLOCK) * Math.ceil(height / LARGE_BLOCK)
  const [taps = 1] = radialPasses(params, grid)
  return blocks * taps * smearedFor(params, grid, Math.min(LARGE_BLOCK, Math.max(width, height))).reduce((sum, pixels) => sum + pixels, 0)
}

/** How many places a pixel reads in each pass. */
function radialPasses(params: RadialBlurParameters, grid: Grid): readonly number[] {
  const places = Math.max(2, Math.ceil(longestWay(params, grid)))
  const count = Math.max(1, Math.ceil(Math.log(places) / Math.log(MOST_TAPS) - 1e-9))
  const taps = Math.ceil(Math.pow(places, 1 / count) - 1e-9)
  return Array.from({ length: count }, () => taps)
}

/** The matrices of each pass; finest steps first. */
function passesOf(params: RadialBlurParameters, grid: Grid, kernels: Kernels): Matrix[][] {
  const far = farthestCorner(params, grid)
  const radians = (params.strength * Math.PI) / 180
  const passes = radialPasses(params, grid)
  const [count, taps = 1] = [passes.length, passes[0]]
  const all = taps ** count
  const middle = params.kind === 'zoom' && params.sides === 'outward' ? 0.5 / all : 0.5 / all - 0.5
  return Array.from({ length: count }, (_, index) =>
    Array.from({ length: taps }, (_, k) => {
      // The last pass also carries where the whole smear lies.
      const u = (k * taps ** index) / all + (index === count - 1 ? middle : 0)
      return params.kind === 'zoom'
        ? scaleMatrix(Math.max(NEAREST, 1 - Math.min(1, params.strength / far)), u)
        : turnMatrix(radians * u, grid, kernels)
    }),
  )
}

/** Towards the place by `least` to the power of `u`: light that lies nearer is seen farther out. */
function scaleMatrix(least: number, u: number): Matrix {
  const factor = Math.fround(Number(Math.pow(least, u).toPrecision(8)))
  return [factor, 0, 0, factor]
}

function turnMatrix(radians: number, { pitchX, pitchY }: Grid, kernels: Kernels): Matrix {
  const [cos, sin] = [kernels.cosine(radians), kernels.sine(radians)]
  return [cos, (-sin * pitchY) / pitchX, (sin * pitchX) / pitchY, cos]
}

/** What is read for `rect`, with a border for reading between pixels. */
function readRect(params: RadialBlurParameters, grid: Grid, rect: Rect, matrices: readonly Matrix[]): Rect {
  const [cx, cy] = [params.x / grid.pitchX - 0.5, params.y / grid.pitchY - 0.5]
  const corners = [rect.x, rect.x + rect.width - 1].flatMap((x) => [rect.y, rect.y + rect.height - 1].map((y) => [x - cx, y - cy] as const))
  const places = matrices.flatMap(([a, b, c, d]) => corners.map(([dx, dy]) => [cx + a * dx + b * dy, cy + c * dx + d * dy] as const))
  const x = Math.floor(Math.min(...places.map(([u]) => u))) - 1
  const y = Math.floor(Math.min(...places.map(([, v]) => v))) - 1
  const right = Math.ceil(Math.max(...places.map(([u]) => u))) + 2
  const bottom = Math.ceil(Math.max(...places.map(([, v]) => v))) + 2
  return { x, y, width: right - x, height: bottom - y }
}
