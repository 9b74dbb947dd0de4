import { MOST_STROKE_POINTS, type BrushStroke } from '@welkinar/core'
import type { BrushSettings } from '../../../scene/brush'
import { limited, type Point } from '../../onPhoto/geometry'

/** The stroke under the pen: points as they come, thinned to what can be seen. */
export class StrokePoints {
  /** x, y in photo px and pressure 0-1, again and again. */
  readonly points: number[] = []

  constructor(private readonly size: number) {}

  /** Adds a point; returns whether it was far enough from the last one to count. */
  add(place: Point, pressure: number): boolean {
    const { x, y } = limited(place)
    const [lastX = Infinity, lastY = Infinity, lastPressure = 0] = this.points.slice(-3)
    const moved = Math.hypot(x - lastX, y - lastY)
    if (moved < 0.5 || (moved < 0.06 * this.size && Math.abs(pressure - lastPressure) < 0.08)) return false
    this.points.push(x, y, Math.round(100 * pressure) / 100)
    return true
  }

  /** Whether no more points fit into one stroke. */
  get full(): boolean {
    return this.points.length >= 3 * MOST_STROKE_POINTS
  }

  /** Place and pressure of the last point. */
  get last(): (Point & { readonly pressure: number }) | undefined {
    const [x, y, pressure] = this.points.slice(-3)
    return x === undefined || y === undefined ? undefined : { x, y, pressure: pressure ?? 1 }
  }

  /** A straight stroke from the first point to a place. */
  straightTo(place: Point, pressure: number): StrokePoints {
    const straight = new StrokePoints(this.size)
    straight.points.push(...this.points.slice(0, 3))
    straight.add(place, pressure)
    return straight
  }

  /** The stroke; undefined while it has no point. */
  stroke(brush: BrushSettings): BrushStroke | undefined {
    if (this.points.length === 0) return undefined
    const { size, hardness, flow, level, pressure, erase, tolerance } = brush
    return { size, hardness, flow, level, pressure, erase, tolerance, points: [...this.points], guides: [] }
  }
}
