/** A place of a curve, both 0-1. */
export interface CurvePoint {
  readonly x: number
  readonly y: number
}

/**
 * A curve through points as `steps` + 1 values over 0-1: cubic, without overshoot (Fritsch and Carlson 1980, in the form of Steffen 1990), level before the first and after the last.
 * Points may come in any order; of several at the same x the last counts.
 */
export function curveTable(points: readonly CurvePoint[], steps: number): Float32Array {
  const sorted = [...new Map([...points].sort((a, b) => a.x - b.x).map((point) => [point.x, point])).values()]
  const slopes = slopesOf(sorted)
  const table = new Float32Array(steps + 1)
  let piece = 0
  for (let i = 0; i <= steps; i++) {
    const x = i / steps
    while (piece < sorted.length - 2 && x > (sorted[piece + 1]?.x ?? 1)) piece++
    const [a, b] = [sorted[piece], sorted[piece + 1]]
    if (!a) table[i] = x
    else if (!b || x <= a.x) table[i] = a.y
    else if (x >= b.x) table[i] = b.y
    else table[i] = between(a, b, slopes[piece] ?? 0, slopes[piece + 1] ?? 0, x)
  }
  return table
}

/** Cubic Hermite piece. */
function between(a: CurvePoint, b: CurvePoint, slopeA: number, slopeB: number, x: number): number {
  const h = b.x - a.x
  const t = (x - a.x) / h
  const s = 1 - t
  return s * s * ((1 + 2 * t) * a.y + t * h * slopeA) + t * t * ((1 + 2 * s) * b.y - s * h * slopeB)
}

function slopesOf(points: readonly CurvePoint[]): number[] {
  const secant = (i: number): number => {
    const [a, b] = [points[i], points[i + 1]]
    return a && b ? (b.y - a.y) / (b.x - a.x) : 0
  }
  return points.map((_, i) => {
    if (i === 0) return secant(0)
    if (i === points.length - 1) return secant(i - 1)
    const [before, after] = [secant(i - 1), secant(i)]
    if (before * after <= 0) return 0
    const [h0, h1] = [(points[i]?.x ?? 0) - (points[i - 1]?.x ?? 0), (points[i + 1]?.x ?? 0) - (points[i]?.x ?? 0)]
    const parabola = (before * h1 + after * h0) / (h0 + h1)
    return Math.sign(before) * Math.min(2 * Math.abs(before), 2 * Math.abs(after), Math.abs(parabola))
  })
}
