import { chance } from '../../../graph/chance'
import { steady } from '../../../graph/steady'
import type { Rect } from '../../../planes/rect'

export type LensDropParameters = {
  readonly seed: number
  /** How many there are in the frame, but for those that would lie in a larger one. */
  readonly count: number
  /** Radius of the largest, photo px. */
  readonly radius: number
  /** 0-1: how much smaller most of them are. */
  readonly spread: number
  /** 0-1: how far from round they are. */
  readonly uneven: number
  /** 0-1: the part of them that has run down and drawn itself long. */
  readonly running: number
  /** Half the width of their outlines, out of focus, photo px. */
  readonly blur: number
  /** What they lie on, photo px, turned counter-clockwise by so many degrees about its middle; down is down in it. */
  readonly frame: Rect & { readonly turn: number }
}

/** One drop: its middle in photo px, its radius, how many times as high as wide it is above the middle, and what makes it uneven. */
export interface Drop {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly tall: number
  readonly lumps: readonly [number, number, number]
}

/** The smallest are this part of the largest when they differ most; a drop that has run is at most so many times as high as wide. */
const SMALLEST = 0.06
const TALLEST = 4.5
/** A drop lies in a larger one if its middle is nearer to that one's than this part of both radii. */
const JOINED = 0.85

const known = new WeakMap<LensDropParameters, readonly Drop[]>()

/** All drops of the frame, the largest first. */
export function dropsOf(params: LensDropParameters): readonly Drop[] {
  const before = known.get(params)
  if (before) return before
  const drops = made(params)
  known.set(params, drops)
  return drops
}

function made({ seed, count, radius, spread, uneven, running, frame }: LensDropParameters): readonly Drop[] {
  const middle = { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 }
  const [sin, cos] = downOf(frame)
  const all = Array.from({ length: count }, (_, index): Drop => {
    const own = (which: number): number => chance(seed, index, which)
    const [dx, dy] = [(own(0) - 0.5) * frame.width, (own(1) - 0.5) * frame.height]
    // Few large ones, many small ones.
    const size = 1 - spread * (1 - SMALLEST) * (1 - own(2) ** 3)
    // Only what is heavy runs.
    const runs = own(3) < running && size > 0.2
    return {
      x: middle.x + dx * cos - dy * sin,
      y: middle.y + dx * sin + dy * cos,
      radius: radius * size,
      tall: runs ? 1 + (TALLEST - 1) * own(4) : 1 + 0.3 * own(4) * size,
      lumps: [uneven * (own(5) - 0.5), uneven * (own(6) - 0.5), 0.7 * uneven * (own(7) - 0.5)],
    }
  }).sort((a, b) => b.radius - a.radius)
  return apart(all, 2 * radius)
}

/** Which way is down in a frame, as it lies on the photo: sine and cosine of its turn. */
export function downOf({ turn }: LensDropParameters['frame']): readonly [sin: number, cos: number] {
  const radians = (turn * Math.PI) / 180
  return [steady(Math.sin(radians)), steady(Math.cos(radians))]
}

/** Without those that lie in a larger one. @param side of the squares in which neighbours are looked for */
function apart(drops: readonly Drop[], side: number): readonly Drop[] {
  const squares = new Map<string, Drop[]>()
  const kept: Drop[] = []
  for (const drop of drops) {
    const [column, row] = [Math.floor(drop.x / side), Math.floor(drop.y / side)]
    const near = [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((j) => squares.get(`${column + i} ${row + j}`) ?? []))
    if (near.some((other) => Math.sqrt((other.x - drop.x) ** 2 + (other.y - drop.y) ** 2) < JOINED * (other.radius + drop.radius))) continue
    kept.push(drop)
    const square = `${column} ${row}`
    squares.set(square, [...(squares.get(square) ?? []), drop])
  }
  return kept
}

/** How far a drop reaches from its middle across and upwards, photo px: uneven ones bulge. @param beyond how far its outline is soft */
export function reachOf(drop: Drop, beyond: number): readonly [wide: number, high: number] {
  const wide = bulgeOf(drop) * (drop.radius + beyond)
  return [wide, wide * drop.tall]
}

/** How far the outline of a drop lies at most, against its radius. */
export function bulgeOf({ lumps }: Drop): number {
  return lumps.reduce((sum, lump) => sum + Math.abs(lump), 1)
}
