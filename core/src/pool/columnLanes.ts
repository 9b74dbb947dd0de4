import type { Grid } from '../planes/grid'
import type { Rect } from '../planes/rect'

/** Columns that are remembered: a few views at a few scales. */
const MOST_COLUMNS = 4000

/**
 * Which thread computes which tile. Each takes the columns of tiles that lie side by side: what a tile reads of its neighbours is known there already. A column
 * stays with its thread while the view moves; one that is new goes to the thread that has fewer of those that are wanted.
 */
export class ColumnLanes {
  private readonly known = new Map<string, number>()

  /** @param lanes how many threads there are */
  constructor(private readonly lanes: number) {}

  /** The thread of each tile of a request. @param tile part of `rect`; `index` is its place among them */
  for({ pitchX, width }: Grid, rect: Rect, tileSize: number): (tile: Rect, index: number) => number {
    const first = Math.floor(rect.x / tileSize)
    const count = Math.ceil((rect.x + rect.width) / tileSize) - first
    const keys = Array.from({ length: count }, (_, column) => `${width} ${pitchX} ${tileSize} ${first + column}`)
    const assigned = keys.map((key) => this.known.get(key))
    const columnOf = (tile: Rect): number => Math.floor(tile.x / tileSize) - first
    // A narrow picture is shared out by its rows.
    if (count < this.lanes) return (tile, index) => assigned[columnOf(tile)] ?? index % this.lanes
    const lanes = this.filled(assigned)
    keys.forEach((key, column) => {
      // The last that were used are the last to go.
      this.known.delete(key)
      this.known.set(key, lanes[column] ?? 0)
    })
    for (const key of this.known.keys()) {
      if (this.known.size <= MOST_COLUMNS) break
      this.known.delete(key)
    }
    return (tile) => lanes[columnOf(tile)] ?? 0
  }

  /** Lanes for all columns: as they are known, unless one thread would then have more than its share. */
  private filled(assigned: readonly (number | undefined)[]): number[] {
    const loads = Array.from({ length: this.lanes }, (_, lane) => assigned.filter((one) => one === lane).length)
    const sideBySide = assigned.map((_, column) => Math.floor((column * this.lanes) / assigned.length))
    if (loads.every((load) => load === 0)) return sideBySide
    const all = assigned.map((one) => {
      if (one !== undefined) return one
      const least = loads.indexOf(Math.min(...loads))
      loads[least] = (loads[least] ?? 0) + 1
      return least
    })
    return Math.max(...loads) - Math.min(...loads) > 1 ? sideBySide : all
  }
}
