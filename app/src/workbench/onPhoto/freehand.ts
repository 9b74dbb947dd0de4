import type { OutlineCorner } from '@welkinar/core'
import simplify from 'simplify-js'
import type { Point } from './geometry'

/** More corners than these are not kept of one line. */
const MOST_CORNERS = 600
/** A turn sharper than this, degrees, stays a corner. */
const SHARP = 70

/**
 * A closed outline along a line drawn by hand: as few corners as stay within a distance of it (Douglas and Peucker 1973), with curves through them; sharp turns stay sharp.
 * @param tolerance photo px
 */
export function outlineAlong(points: readonly Point[], tolerance: number): OutlineCorner[] {
  let kept: readonly Point[] = simplify([...points], tolerance, true)
  for (let wider = 2 * tolerance; kept.length > MOST_CORNERS; wider *= 2) kept = simplify([...points], wider, true)
  const [first, last] = [kept[0], kept.at(-1)]
  // Where it ends beside its beginning there is one corner, not two.
  const ring = first && last && kept.length > 3 && Math.hypot(first.x - last.x, first.y - last.y) < 4 * tolerance ? kept.slice(0, -1) : kept
  return ring.map((at, i) => cornerBetween(ring.at(i - 1) ?? at, at, ring[(i + 1) % ring.length] ?? at))
}

/** A corner whose curve leads from the one before to the next (Catmull and Rom 1974, as a cubic Bézier curve). */
function cornerBetween(before: Point, at: Point, after: Point): OutlineCorner {
  const [inLength, outLength] = [Math.hypot(at.x - before.x, at.y - before.y), Math.hypot(after.x - at.x, after.y - at.y)]
  const across = { x: after.x - before.x, y: after.y - before.y }
  const whole = Math.hypot(across.x, across.y)
  const turn = turnAt(before, at, after)
  if (whole === 0 || turn > SHARP) return { ...rounded(at), inX: 0, inY: 0, outX: 0, outY: 0 }
  const [ux, uy] = [across.x / whole / 3, across.y / whole / 3]
  return {
    ...rounded(at),
    inX: hundredth(-ux * inLength),
    inY: hundredth(-uy * inLength),
    outX: hundredth(ux * outLength),
    outY: hundredth(uy * outLength),
  }
}

function turnAt(before: Point, at: Point, after: Point): number {
  const [from, to] = [Math.atan2(at.y - before.y, at.x - before.x), Math.atan2(after.y - at.y, after.x - at.x)]
  const turn = Math.abs(((to - from) * 180) / Math.PI) % 360
  return Math.min(turn, 360 - turn)
}

function hundredth(value: number): number {
  return Math.round(100 * value) / 100
}

function rounded({ x, y }: Point): Point {
  return { x: hundredth(x), y: hundredth(y) }
}
