import type { Evaluator } from '../graph/evaluator'
import type { GraphNode } from '../graph/node'
import { plane } from '../operations/plane'
import { gridAt, gridBounds, type Grid, type Size } from '../planes/grid'
import { intersect, type Rect } from '../planes/rect'

/** Where a spot may be mended from, photo px. */
export interface FoundPatch {
  readonly x: number
  readonly y: number
}

/** Radius of the spot on the grids on which it is looked for, px: first roughly, then to a pixel. */
const ROUGH = 10
const FINE = 40
/** How far away places are looked for, in radii, and about how many px of the rim are compared. */
const NEAREST = 2.1
const FARTHEST = 5
const RIM = { from: 1, to: 1.5, most: 240 }
/** A place whose inside differs from its rim has something in it: so much that counts. */
const INSIDE_COUNTS = 1
/** Of equally good places the nearest. */
const FAR_COUNTS = 1e-6

interface Samples {
  readonly rect: Rect
  readonly channels: readonly [Float32Array, Float32Array, Float32Array]
}

/** Places about a middle, px of the grid. */
interface Places {
  readonly rim: readonly (readonly [number, number])[]
  readonly inside: readonly (readonly [number, number])[]
}

/**
 * The place near a spot whose rim is most like that of the spot, but for an even difference, which mending takes out: exhaustive search by the mean squared difference (common practice), rough first. Undefined if the
 * picture has no room for one.
 * @param radius of the spot, photo px
 */
export function findPatch(
  evaluator: Evaluator,
  tones: GraphNode,
  photo: Size,
  x: number,
  y: number,
  radius: number,
): FoundPatch | undefined {
  const rough = search(evaluator, tones, gridAt(photo, Math.min(1, ROUGH / radius)), { x, y, radius }, undefined)
  if (!rough || radius <= ROUGH) return rough
  return search(evaluator, tones, gridAt(photo, Math.min(1, FINE / radius)), { x, y, radius }, rough) ?? rough
}

interface Spot {
  readonly x: number
  readonly y: number
  readonly radius: number
}

/** @param about a place that was found on a rougher grid: only what lies around it is looked at */
function search(evaluator: Evaluator, tones: GraphNode, grid: Grid, spot: Spot, about: FoundPatch | undefined): FoundPatch | undefined {
  const { pitchX, pitchY } = grid
  const radius = spot.radius / Math.sqrt(pitchX * pitchY)
  const middle = [Math.floor(spot.x / pitchX), Math.floor(spot.y / pitchY)] as const
  const reach = Math.ceil((FARTHEST + RIM.to) * radius) + 2
  const wanted = { x: middle[0] - reach, y: middle[1] - reach, width: 2 * reach + 1, height: 2 * reach + 1 }
  const samples = samplesOf(evaluator, tones, grid, wanted)
  const places = placesOf(radius)
  let best: { readonly cost: number; readonly x: number; readonly y: number } | undefined
  for (const [ox, oy] of offsets(radius, about && [(about.x - spot.x) / pitchX, (about.y - spot.y) / pitchY])) {
    const cost = costOf(samples, middle, [ox, oy], places, radius)
    if (cost < (best?.cost ?? Infinity)) best = { cost, x: ox, y: oy }
  }
  // A whole number of px away, so that what is copied stays as sharp as it is.
  return best && { x: spot.x + Math.round(best.x * pitchX), y: spot.y + Math.round(best.y * pitchY) }
}

function samplesOf(evaluator: Evaluator, tones: GraphNode, grid: Grid, wanted: Rect): Samples {
  const rect = intersect(wanted, gridBounds(grid))
  if (rect.width === 0 || rect.height === 0) return { rect, channels: [new Float32Array(0), new Float32Array(0), new Float32Array(0)] }
  const value = evaluator.evaluate(tones, rect, grid)
  const { buffer } = evaluator.kernels.memory
  const channels = [0, 1, 2].map((channel) => new Float32Array(buffer, plane(value, channel), rect.width * rect.height).slice())
  return { rect, channels: channels as unknown as Samples['channels'] }
}

function placesOf(radius: number): Places {
  const all: (readonly [number, number, number])[] = []
  const side = Math.ceil(RIM.to * radius)
  for (let y = -side; y <= side; y++) for (let x = -side; x <= side; x++) all.push([x, y, Math.hypot(x, y) / radius])
  const rim = all.filter(([, , far]) => far >= RIM.from && far <= RIM.to)
  const inside = all.filter(([, , far]) => far < RIM.from)
  return { rim: thinned(rim), inside: thinned(inside) }
}

function thinned(places: readonly (readonly [number, number, number])[]): (readonly [number, number])[] {
  const step = Math.max(1, places.length / RIM.most)
  return Array.from({ length: Math.floor(places.length / step) }, (_, i) => {
    const [x = 0, y = 0] = places[Math.floor(i * step)] ?? []
    return [x, y] as const
  })
}

/** Whole px from the spot, that are tried. */
function* offsets(radius: number, about: readonly [number, number] | undefined): Generator<readonly [number, number]> {
  if (about) {
    const around = Math.ceil(1.5 * Math.max(1, radius / ROUGH))
    for (let y = -around; y <= around; y++)
      for (let x = -around; x <= around; x++) yield [Math.round(about[0]) + x, Math.round(about[1]) + y]
    return
  }
  const side = Math.ceil(FARTHEST * radius)
  for (let y = -side; y <= side; y++) {
    for (let x = -side; x <= side; x++) {
      const far = Math.hypot(x, y) / radius
      if (far >= NEAREST && far <= FARTHEST) yield [x, y]
    }
  }
}

/** How unlike two rims are, and how much the inside of the other place differs from its rim; Infinity where it leaves the picture. */
function costOf(
  { rect, channels }: Samples,
  [mx, my]: readonly [number, number],
  [ox, oy]: readonly [number, number],
  { rim, inside }: Places,
  radius: number,
): number {
  const reach = Math.ceil(RIM.to * radius)
  const [left, top] = [mx + ox - reach - rect.x, my + oy - reach - rect.y]
  if (left < 0 || top < 0 || left + 2 * reach >= rect.width || top + 2 * reach >= rect.height) return Infinity
  let cost = FAR_COUNTS * (Math.hypot(ox, oy) / radius)
  for (const channel of channels) {
    let [sum, squares, count, other, within] = [0, 0, 0, 0, 0]
    for (const [x, y] of rim) {
      const [px, py] = [mx + x - rect.x, my + y - rect.y]
      const there = channel[(py + oy) * rect.width + px + ox] ?? 0
      other += there
      if (px < 0 || py < 0 || px >= rect.width || py >= rect.height) continue
      const d = (channel[py * rect.width + px] ?? 0) - there
      sum += d
      squares += d * d
      count++
    }
    for (const [x, y] of inside) within += channel[(my + oy + y - rect.y) * rect.width + mx + ox + x - rect.x] ?? 0
    const mean = sum / Math.max(1, count)
    const step = within / Math.max(1, inside.length) - other / Math.max(1, rim.length)
    cost += squares / Math.max(1, count) - mean * mean + INSIDE_COUNTS * step * step
  }
  return cost
}
