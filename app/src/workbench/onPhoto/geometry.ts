import { toScreen, type ViewPort } from './viewPort'

export interface Point {
  readonly x: number
  readonly y: number
}

/** Farthest that anything may lie outside the photo, px. */
const FARTHEST = 100000

/** Photo px of a place in css px of the view. */
export function toPhoto(port: ViewPort, { x, y }: Point): Point {
  return { x: (x - port.width / 2) / port.zoom + port.centreX, y: (y - port.height / 2) / port.zoom + port.centreY }
}

export function screenPoint(port: ViewPort, { x, y }: Point): Point {
  return toScreen(port, x, y)
}

/** Css px of a pointer within an element. */
export function pointerPlace({ clientX, clientY }: { readonly clientX: number; readonly clientY: number }, element: Element): Point {
  const box = element.getBoundingClientRect()
  const degrees = Number(element.closest<HTMLElement>('[data-turn]')?.dataset['turn'] ?? 0)
  if (degrees === 0) return { x: clientX - box.left, y: clientY - box.top }
  // The box about a turned element has the same middle.
  const radians = (degrees * Math.PI) / 180
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
  const [x, y] = [clientX - box.left - box.width / 2, clientY - box.top - box.height / 2]
  return { x: x * cos - y * sin + element.clientWidth / 2, y: x * sin + y * cos + element.clientHeight / 2 }
}

/** Kept within what documents can hold, and to a hundredth of a px. */
export function limited({ x, y }: Point): Point {
  const one = (value: number): number => Math.round(100 * Math.min(FARTHEST, Math.max(-FARTHEST, value))) / 100
  return { x: one(x), y: one(y) }
}

/** A place at a distance and angle (degrees counter-clockwise, y down) from another. */
export function atAngle({ x, y }: Point, distance: number, degrees: number): Point {
  const radians = (degrees * Math.PI) / 180
  return { x: x + distance * Math.cos(radians), y: y - distance * Math.sin(radians) }
}

/** Degrees counter-clockwise from the x axis, y down. */
export function angleOf(from: Point, to: Point): number {
  return (Math.atan2(from.y - to.y, to.x - from.x) * 180) / Math.PI
}

/** SVG path through places of the photo, css px. */
export function pathThrough(port: ViewPort, points: readonly Point[]): string {
  return `M${points
    .map((point) => screenPoint(port, point))
    .map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('L')}`
}
