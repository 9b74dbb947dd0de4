import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, intersect, union, type Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'
import { bulgeOf, downOf, dropsOf, reachOf, type Drop, type LensDropParameters } from './drops'

/** What is out of focus by some length is as good on a grid of this part of it; and drops are round enough on one of this part of their radius. */
const OF_BLUR = 2
const OF_RADIUS = 32
/** What is seen at the outline of a drop and a little beyond it lies so far from its middle, against `view` radii. */
const FARTHEST = 0.4 + 0.6 * 1.2

/** Numbers of one drop in a table of the kernels. */
const DROP_NUMBERS = 13

function pitchOfDrops({ blur, radius }: LensDropParameters): number {
  return Math.max(blur / OF_BLUR, radius / OF_RADIUS)
}

/** Drops of water on the lens, as a field: 1 in them, 0 between them, with outlines out of focus. */
export const lensDrops: Operation<LensDropParameters> = {
  name: 'lensDrops',
  pitch: pitchOfDrops,
  run(context, params, _, rect) {
    const { kernels, plane } = context
    const out = plane(rect.width * rect.height)
    kernels.fill(out, rect.width * rect.height, 0)
    kernels.coverByDrops(...tableOf(context, params, rect), out, ...placeOf(context.grid, params, rect))
    return { kind: 'field', rect, planes: [out] }
  },
}

export function lensDropsNode(params: LensDropParameters): GraphNode {
  return graphNode('lensDrops', params)
}

type RefractionParameters = LensDropParameters & {
  /** How much of the picture a drop shows, against its own size. */
  readonly view: number
  /** 0-1: how dark it gets towards the outline. */
  readonly rim: number
  /** 0-1: how bright the reflection of the light is. */
  readonly glint: number
}

/**
 * The picture as drops on the lens show it: each is a small lens that turns it upside down. What is seen at its outline lies `view` radii beyond the middle, on the other side.
 * Between the drops it is the input itself.
 * Input: tones that hold nothing finer than what a drop shows. Common practice, no source.
 */
export const refraction: Operation<RefractionParameters> = {
  name: 'refraction',
  pitch: pitchOfDrops,
  // What each drop that touches the rectangle shows, all about its middle.
  need(params, rect, grid) {
    const beyond = softnessOn(grid, params)
    return dropsOf(params).reduce(
      (all, drop) => {
        if (!touches(boxOf(drop, params, beyond, grid), rect)) return all
        const [wide] = reachOf(drop, 0)
        const seen = FARTHEST * params.view * wide
        return union(all, around(drop, [seen, seen], grid))
      },
      expand(rect, 1),
    )
  },
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const { planes: from, rect: inner } = inputAt(inputs, 0)
    const tones = from.map(() => context.plane(rect.width * rect.height))
    const drops = context.scratch(rect.width * rect.height * 4)
    // Between the drops it is the input.
    tones.forEach((out, channel) =>
      kernels.copyPart(from[channel] ?? 0, inner.width, rect.x - inner.x, rect.y - inner.y, out, rect.width, 0, 0, rect.width, rect.height),
    )
    kernels.fill(drops, rect.width * rect.height, 0)
    kernels.refractByDrops(
      ...tableOf(context, params, rect),
      drops,
      ...placeOf(grid, params, rect),
      ...three(tones),
      ...three(from),
      inner.x,
      inner.y,
      inner.width,
      inner.height,
      grid.width,
      grid.height,
      params.view,
      params.rim,
      params.glint,
    )
    return { kind: 'tones', rect, planes: tones }
  },
}

/** @param tones blurred as far as drops are out of focus, times `view` */
export function refractionNode(tones: GraphNode, params: RefractionParameters): GraphNode {
  return graphNode('refraction', params, [tones])
}

function three([red = 0, green = 0, blue = 0]: readonly number[]): [number, number, number] {
  return [red, green, blue]
}

/** Half the width of outlines, photo px: no less than a pixel of the grid shows. */
function softnessOn(grid: Grid, { blur }: LensDropParameters): number {
  return Math.max(blur, 0.75 * pitchOf(grid))
}

/** The drops that may cover something of a rectangle, as a table of the kernels, which describe it, and how many there are. */
function tableOf(context: RunContext, params: LensDropParameters, rect: Rect): [table: number, count: number] {
  const { kernels, grid, scratch } = context
  const beyond = softnessOn(grid, params)
  const rows = dropsOf(params).flatMap((drop) => {
    const { x, y, width, height } = intersect(boxOf(drop, params, beyond, grid), rect)
    if (width <= 0 || height <= 0) return []
    const bulge = bulgeOf(drop)
    const nearest = Math.max(0, (2 - bulge) * (1 - beyond / drop.radius))
    const farthest = bulge * (1 + beyond / drop.radius)
    return [[drop.x, drop.y, drop.radius, drop.tall, ...drop.lumps, nearest, farthest, x, y, x + width, y + height]]
  })
  const table = scratch(rows.length * DROP_NUMBERS * 8)
  new Float64Array(kernels.memory.buffer, table, rows.length * DROP_NUMBERS).set(rows.flat())
  return [table, rows.length]
}

/** Where a rectangle of the grid lies, how the drops stand on it and how soft they are, as the kernels take it. */
function placeOf(
  grid: Grid,
  params: LensDropParameters,
  { x, y, width }: Rect,
): [number, number, number, number, number, number, number, number] {
  const [sin, cos] = downOf(params.frame)
  return [x, y, width, grid.pitchX, grid.pitchY, sin, cos, softnessOn(grid, params)]
}

/** All that a drop may cover with its soft outline, on the grid. */
function boxOf(drop: Drop, { frame }: LensDropParameters, beyond: number, grid: Grid): Rect {
  const [sin, cos] = downOf(frame).map(Math.abs) as [number, number]
  const [wide, high] = reachOf(drop, beyond)
  // What is wide and high in the frame, on the photo that it is turned on.
  return around(drop, [cos * wide + sin * high, sin * wide + cos * high], grid)
}

/** A rectangle of the grid about a place, so far to each side. */
function around({ x, y }: Drop, [reachX, reachY]: readonly [number, number], { pitchX, pitchY }: Grid): Rect {
  const [left, top] = [Math.floor((x - reachX) / pitchX) - 1, Math.floor((y - reachY) / pitchY) - 1]
  return { x: left, y: top, width: Math.ceil((x + reachX) / pitchX) + 2 - left, height: Math.ceil((y + reachY) / pitchY) + 2 - top }
}

function touches(a: Rect, b: Rect): boolean {
  const { width, height } = intersect(a, b)
  return width > 0 && height > 0
}
