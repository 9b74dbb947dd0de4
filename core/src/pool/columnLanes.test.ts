import { describe, expect, it } from 'vitest'
import { gridAt } from '../planes/grid'
import { outside, splitIntoTiles, type Rect } from '../planes/rect'
import { ColumnLanes } from './columnLanes'

const TILE = 10
const grid = gridAt({ width: 400, height: 100 }, 1)

/** The thread of each column of a view, from left to right. */
function columnsOf(lanes: ColumnLanes, rect: Rect): number[] {
  const laneOf = lanes.for(grid, rect, TILE)
  const tiles = splitIntoTiles(rect, TILE)
  return tiles.map(laneOf).filter((_, index) => tiles[index]?.y === rect.y)
}

describe('the thread of a tile', () => {
  it('columns side by side go to one thread, whatever their row', () => {
    const lanes = new ColumnLanes(2)
    const rect = { x: 0, y: 0, width: 40, height: 20 }
    expect(columnsOf(lanes, rect)).toEqual([0, 0, 1, 1])
    const laneOf = lanes.for(grid, rect, TILE)
    expect(laneOf({ x: 20, y: 10, width: 10, height: 10 }, 6)).toBe(1)
  })

  it('a column keeps its thread when the view moves; new ones go where less is to do', () => {
    const lanes = new ColumnLanes(2)
    columnsOf(lanes, { x: 0, y: 0, width: 40, height: 20 })
    expect(columnsOf(lanes, { x: 5, y: 0, width: 40, height: 20 })).toEqual([0, 0, 1, 1, 0])
    expect(columnsOf(lanes, { x: 10, y: 0, width: 40, height: 20 })).toEqual([0, 1, 1, 0])
  })

  it('no thread has more than its share: otherwise all columns are shared out anew', () => {
    const lanes = new ColumnLanes(2)
    columnsOf(lanes, { x: 0, y: 0, width: 80, height: 20 })
    expect(columnsOf(lanes, { x: 0, y: 0, width: 40, height: 20 })).toEqual([0, 0, 1, 1])
  })

  it('a picture narrower than the threads are many is shared out by rows', () => {
    const laneOf = new ColumnLanes(4).for(grid, { x: 0, y: 0, width: 10, height: 40 }, TILE)
    expect(splitIntoTiles({ x: 0, y: 0, width: 10, height: 40 }, TILE).map(laneOf)).toEqual([0, 1, 2, 3])
  })
})

describe('what is left of a rectangle', () => {
  it('covers with the hole every pixel once', () => {
    const rect = { x: 2, y: 3, width: 9, height: 7 }
    for (const hole of [
      { x: 4, y: 5, width: 3, height: 2 },
      { x: 0, y: 0, width: 6, height: 20 },
      { x: 8, y: 8, width: 20, height: 20 },
      { x: 20, y: 0, width: 4, height: 4 },
      rect,
    ]) {
      const times = new Map<string, number>()
      for (const part of [...outside(rect, hole), hole]) {
        for (let y = part.y; y < part.y + part.height; y++) {
          for (let x = part.x; x < part.x + part.width; x++) times.set(`${x} ${y}`, (times.get(`${x} ${y}`) ?? 0) + 1)
        }
      }
      for (let y = 3; y < 10; y++) for (let x = 2; x < 11; x++) expect(times.get(`${x} ${y}`)).toBe(1)
    }
  })
})
