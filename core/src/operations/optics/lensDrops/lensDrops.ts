import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, intersect, union, type Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'
import { bulgeOf, downOf, dropsOf, placeIn, reachOf, type Drop, type InDrop, type LensDropParameters } from './drops'

/** What is out of focus by some length is as good on a grid of this part of it; and drops are round enough on one of this part of their radius. */
const OF_BLUR = 2
const OF_RADIUS = 32
/** What is seen at the outline of a drop and a little beyond it lies so far from its middle, against `view` radii. */
const FARTHEST = 0.4 + 0.6 * 1.2

function pitchOfDrops({ blur, radius }: LensDropParameters): number {
  return Math.max(blur / OF_BLUR, radius / OF_RADIUS)
}

/** Drops of water on the lens, as a field: 1 in them, 0 between them, with outlines out of focus. */
export const lensDrops: Operation<LensDropParameters> = {
  name: 'lensDrops',
  pitch: pitchOfDrops,
  run(context, params, _, rect) {
    const address = context.plane(rect.width * rect.height)
    const out = new Float32Array(context.kernels.memory.buffer, address, rect.width * rect.height).fill(0)
    const soft = softnessOn(context.grid, params)
    inDrops(
      context.grid,
      params,
      rect,
      (drop, at, i) => {
        const before = out[i] as number
        out[i] = before + (1 - before) * covered(drop, at, soft)
      },
      true,
    )
    return { kind: 'field', rect, planes: [address] }
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
 * The picture as drops on the lens show it: each is a small lens that turns it upside down. What is seen at its outline lies `view` radii beyond the middle, on the other side. Between the drops it is the input itself.
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
    const input = inputAt(inputs, 0)
    const { grid } = context
    const addresses = [0, 1, 2].map(() => context.plane(rect.width * rect.height))
    const from = planesOf(context, input.planes, input.rect.width * input.rect.height)
    const out = planesOf(context, addresses, rect.width * rect.height)
    const [[fromRed, fromGreen, fromBlue], [red, green, blue]] = [from, out]
    // Between the drops it is the input.
    for (let row = 0; row < rect.height; row++) {
      const start = (row + rect.y - input.rect.y) * input.rect.width + rect.x - input.rect.x
      out.forEach((plane, channel) => plane.set(from[channel]?.subarray(start, start + rect.width) ?? [], row * rect.width))
    }
    const all = new Float32Array(rect.width * rect.height)
    const soft = softnessOn(grid, params)
    const [sin, cos] = downOf(params.frame)
    const between: Between = { upperLeft: 0, upperRight: 0, lowerLeft: 0, lowerRight: 0, right: 0, below: 0 }
    inDrops(grid, params, rect, (drop, at, i) => {
      // A larger drop lies over a smaller one, as far as it covers it.
      const before = all[i] as number
      const part = (1 - before) * covered(drop, at, soft)
      if (part <= 0) return
      all[i] = before + part
      const weight = part / (before + part)
      const out2 = at.out * at.out
      const bend = (-params.view * drop.radius * (0.4 + 0.6 * Math.min(1.2, out2))) / Math.max(1, at.out)
      const [right, below] = [bend * at.across, bend * at.down]
      const x = (drop.x + right * cos - below * sin) / grid.pitchX
      const y = (drop.y + right * sin + below * cos) / grid.pitchY
      const dark = 1 - params.rim * smooth((at.out - 0.5) / 0.55) * (0.65 - 0.35 * Math.max(-1, at.down))
      const light = params.glint * shine(at)
      findBetween(input.rect, grid, x, y, between)
      red[i] = (red[i] as number) * (1 - weight) + weight * lit(dark * sample(fromRed, between), light)
      green[i] = (green[i] as number) * (1 - weight) + weight * lit(dark * sample(fromGreen, between), light)
      blue[i] = (blue[i] as number) * (1 - weight) + weight * lit(dark * sample(fromBlue, between), light)
    })
    return { kind: 'tones', rect, planes: addresses }
  },
}

/** @param tones blurred as far as drops are out of focus, times `view` */
export function refractionNode(tones: GraphNode, params: RefractionParameters): GraphNode {
  return graphNode('refraction', params, [tones])
}

type Planes = readonly [Float32Array, Float32Array, Float32Array]

function planesOf({ kernels }: RunContext, addresses: readonly number[], count: number): Planes {
  return addresses.map((address) => new Float32Array(kernels.memory.buffer, address, count)) as unknown as Planes
}

/** A tone with light added, the less the brighter it is. */
function lit(tone: number, light: number): number {
  return tone + light * Math.max(0, 1 - tone)
}

/** Half the width of outlines, photo px: no less than a pixel of the grid shows. */
function softnessOn(grid: Grid, { blur }: LensDropParameters): number {
  return Math.max(blur, 0.75 * pitchOf(grid))
}

/**
 * Each place of a rectangle that a drop may cover, once for each such drop.
 * @param onlyCover where a drop surely covers all, it is of no account where in it a place lies: its middle is given
 */
function inDrops(
  grid: Grid,
  params: LensDropParameters,
  rect: Rect,
  visit: (drop: Drop, at: InDrop, i: number) => void,
  onlyCover = false,
): void {
  const { pitchX, pitchY } = grid
  const [sin, cos] = downOf(params.frame)
  const at: InDrop = { across: 0, down: 0, out: 0 }
  const beyond = softnessOn(grid, params)
  for (const drop of dropsOf(params)) {
    const part = intersect(boxOf(drop, params, beyond, grid), rect)
    const bulge = bulgeOf(drop)
    const farthest = bulge * (1 + beyond / drop.radius)
    const nearest = onlyCover ? Math.max(0, (2 - bulge) * (1 - beyond / drop.radius)) : 0
    for (let row = part.y; row < part.y + part.height; row++) {
      const dy = (row + 0.5) * pitchY - drop.y
      for (let column = part.x; column < part.x + part.width; column++) {
        const dx = (column + 0.5) * pitchX - drop.x
        placeIn(drop, dx * cos + dy * sin, dy * cos - dx * sin, nearest, farthest, at)
        if ((at.out - 1) * drop.radius < beyond) visit(drop, at, (row - rect.y) * rect.width + column - rect.x)
      }
    }
  }
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

/** 1 inside of a drop, 0 outside, over twice `soft` across its outline. */
function covered({ radius }: Drop, { out }: InDrop, soft: number): number {
  return smooth(((1 - out) * radius + soft) / (2 * soft))
}

function smooth(t: number): number {
  const within = Math.max(0, Math.min(1, t))
  return within * within * (3 - 2 * within)
}

/** The light as it is seen in a drop: a spot above on the left, and a crescent below. */
function shine({ across, down, out }: InDrop): number {
  const off = ((across + 0.36) ** 2 + (down + 0.46) ** 2) / 0.035
  const spot = off < 1 ? (1 - off) ** 2 : 0
  const crescent = down > 0 ? smooth((out - 0.62) / 0.2) * smooth((1.02 - out) / 0.12) * down * down : 0
  return spot + 0.35 * crescent
}

/** Four pixels of a plane, and how near a place between them is to the right and the lower ones, 0-1. */
interface Between {
  upperLeft: number
  upperRight: number
  lowerLeft: number
  lowerRight: number
  right: number
  below: number
}

/** The pixels about a place; beyond the border the picture is seen in a mirror. One object is written again and again: there are millions of places. */
function findBetween({ x: left, y: top, width, height }: Rect, grid: Grid, x: number, y: number, found: Between): void {
  const column = mirrored(x - 0.5, grid.width) - left
  const row = mirrored(y - 0.5, grid.height) - top
  const i = Math.floor(column)
  const j = Math.floor(row)
  const first = Math.max(0, Math.min(width - 1, i))
  const next = Math.max(0, Math.min(width - 1, i + 1))
  const upper = Math.max(0, Math.min(height - 1, j)) * width
  const lower = Math.max(0, Math.min(height - 1, j + 1)) * width
  found.upperLeft = upper + first
  found.upperRight = upper + next
  found.lowerLeft = lower + first
  found.lowerRight = lower + next
  found.right = column - i
  found.below = row - j
}

/** What lies between pixels, in straight lines. */
function sample(plane: Float32Array, { upperLeft, upperRight, lowerLeft, lowerRight, right, below }: Between): number {
  return (
    ((plane[upperLeft] ?? 0) * (1 - right) + (plane[upperRight] ?? 0) * right) * (1 - below) +
    ((plane[lowerLeft] ?? 0) * (1 - right) + (plane[lowerRight] ?? 0) * right) * below
  )
}

function mirrored(at: number, length: number): number {
  if (at >= 0 && at <= length - 1) return at
  const last = Math.max(1, length - 1)
  const folded = Math.abs(at) % (2 * last)
  return Math.min(length - 1, folded > last ? 2 * last - folded : folded)
}
