import type { OutlineCorner } from '../../../model/corner'

/** Corners of a polygon in photo px: x, y, x, y … */
export type Polygon = readonly number[]

/** Greatest distance between a curve and its chords, photo px. */
const TOLERANCE = 0.1
const MOST_PIECES = 200

/**
 * The closed polygon of a path of Bézier curves, wound so that its area is positive. The number of pieces is that of Wang's formula
 * (from memory): √(6 d / (8 tolerance)) with d the greater second difference of the control points.
 */
export function flattenPath(corners: readonly OutlineCorner[]): Polygon {
  const polygon = corners.flatMap((from, index) => {
    const to = corners[(index + 1) % corners.length] ?? from
    return flattenCurve(from, to)
  })
  return signedArea(polygon) < 0 ? reversed(polygon) : polygon
}

/** An open path of Bézier curves as a line of points, at least `least` to each curve. */
export function flattenLine(corners: readonly OutlineCorner[], least: number): Polygon {
  const last = corners.at(-1)
  const inside = corners.slice(0, -1).flatMap((from, index) => flattenCurve(from, corners[index + 1] ?? from, least))
  return last ? [...inside, last.x, last.y] : []
}

/** Points of the curve from one corner to the next, without its end. */
function flattenCurve(from: OutlineCorner, to: OutlineCorner, least = 1): number[] {
  const straight = from.outX === 0 && from.outY === 0 && to.inX === 0 && to.inY === 0
  if (straight && least === 1) return [from.x, from.y]
  const x = [from.x, from.x + from.outX, to.x + to.inX, to.x] as const
  const y = [from.y, from.y + from.outY, to.y + to.inY, to.y] as const
  const second = Math.max(bend(x[0], x[1], x[2], y[0], y[1], y[2]), bend(x[1], x[2], x[3], y[1], y[2], y[3]))
  const pieces = Math.min(MOST_PIECES, Math.max(least, Math.ceil(Math.sqrt((6 * second) / (8 * TOLERANCE)))))
  return Array.from({ length: pieces }, (_, i) => [cubic(x, i / pieces), cubic(y, i / pieces)]).flat()
}

function bend(x0: number, x1: number, x2: number, y0: number, y1: number, y2: number): number {
  return Math.sqrt((x0 - 2 * x1 + x2) ** 2 + (y0 - 2 * y1 + y2) ** 2)
}

function cubic([a, b, c, d]: readonly [number, number, number, number], t: number): number {
  const s = 1 - t
  return s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d
}

function signedArea(polygon: Polygon): number {
  let sum = 0
  for (let i = 0; i < polygon.length; i += 2) {
    const j = (i + 2) % polygon.length
    sum += (polygon[i] ?? 0) * (polygon[j + 1] ?? 0) - (polygon[j] ?? 0) * (polygon[i + 1] ?? 0)
  }
  return sum / 2
}

function reversed(polygon: Polygon): number[] {
  const out: number[] = []
  for (let i = polygon.length - 2; i >= 0; i -= 2) out.push(polygon[i] ?? 0, polygon[i + 1] ?? 0)
  return out
}
