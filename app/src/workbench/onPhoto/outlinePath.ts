import type { OutlineCorner } from '@welkinar/core'
import type { ViewPort } from './viewPort'
import { screenPoint, type Point } from './geometry'

/** SVG path of corners with their curves, css px. */
export function outlinePath(port: ViewPort, corners: readonly OutlineCorner[], closed: boolean): string {
  const [first] = corners
  if (!first) return ''
  const place = (x: number, y: number): string => {
    const at = screenPoint(port, { x, y })
    return `${at.x.toFixed(1)} ${at.y.toFixed(1)}`
  }
  const side = (from: OutlineCorner, to: OutlineCorner): string =>
    `C${place(from.x + from.outX, from.y + from.outY)} ${place(to.x + to.inX, to.y + to.inY)} ${place(to.x, to.y)}`
  const sides = corners.slice(1).map((to, index) => side(corners[index] ?? first, to))
  const last = corners.at(-1) ?? first
  return `M${place(first.x, first.y)}${sides.join('')}${closed ? `${side(last, first)}Z` : ''}`
}

export function plainCorner({ x, y }: Point): OutlineCorner {
  return { x, y, inX: 0, inY: 0, outX: 0, outY: 0 }
}

/** Index of the side, and the place on it, that lies nearest to a place; sides are taken in sixteen pieces. */
export function nearestSide(
  corners: readonly OutlineCorner[],
  at: Point,
): { readonly side: number; readonly place: Point; readonly distance: number } {
  let best = { side: 0, place: at, distance: Infinity }
  corners.forEach((from, side) => {
    const to = corners[(side + 1) % corners.length] ?? from
    for (let i = 1; i < 16; i++) {
      const place = onCurve(from, to, i / 16)
      const distance = Math.hypot(place.x - at.x, place.y - at.y)
      if (distance < best.distance) best = { side, place, distance }
    }
  })
  return best
}

function onCurve(from: OutlineCorner, to: OutlineCorner, t: number): Point {
  const s = 1 - t
  const mix = (a: number, b: number, c: number, d: number): number => s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d
  return {
    x: mix(from.x, from.x + from.outX, to.x + to.inX, to.x),
    y: mix(from.y, from.y + from.outY, to.y + to.inY, to.y),
  }
}
