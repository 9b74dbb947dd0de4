/** A rectangle of whole pixels; (x, y) is its first pixel. */
export interface Rect {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** `rect` grown by `reach` px on every side. */
export function expand(rect: Rect, reach: number): Rect {
  return { x: rect.x - reach, y: rect.y - reach, width: rect.width + 2 * reach, height: rect.height + 2 * reach }
}

/** The part that both share; its width or height is 0 if there is none. */
export function intersect(a: Rect, b: Rect): Rect {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  }
}

/** The smallest rectangle that holds both. */
export function union(a: Rect, b: Rect): Rect {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return { x, y, width: Math.max(a.x + a.width, b.x + b.width) - x, height: Math.max(a.y + a.height, b.y + b.height) - y }
}

/** Whether `inner` lies in `outer`. */
export function contains(outer: Rect, inner: Rect): boolean {
  return sameRect(union(outer, inner), outer)
}

/** The part of `rect` inside `bounds`, at least one pixel of it: a rectangle outside is moved to the nearest border. */
export function clampInto(rect: Rect, bounds: Rect): Rect {
  const x = Math.min(Math.max(rect.x, bounds.x), bounds.x + bounds.width - 1)
  const y = Math.min(Math.max(rect.y, bounds.y), bounds.y + bounds.height - 1)
  const right = Math.min(Math.max(rect.x + rect.width, x + 1), bounds.x + bounds.width)
  const bottom = Math.min(Math.max(rect.y + rect.height, y + 1), bounds.y + bounds.height)
  return { x, y, width: right - x, height: bottom - y }
}

/** The tiles of `size` px a side, which begin at multiples of it, that `rect` touches, as one rectangle. */
export function tilesAround({ x, y, width, height }: Rect, size: number): Rect {
  const [left, top] = [Math.floor(x / size) * size, Math.floor(y / size) * size]
  return { x: left, y: top, width: Math.ceil((x + width) / size) * size - left, height: Math.ceil((y + height) / size) * size - top }
}

/** The parts of `rect` in the tiles of `size` px a side that begin at multiples of it, wherever `rect` lies; from top to bottom. */
export function splitIntoTiles(rect: Rect, size: number): Rect[] {
  const tiles: Rect[] = []
  for (let y = Math.floor(rect.y / size) * size; y < rect.y + rect.height; y += size) {
    for (let x = Math.floor(rect.x / size) * size; x < rect.x + rect.width; x += size) {
      tiles.push(intersect({ x, y, width: size, height: size }, rect))
    }
  }
  return tiles
}

/** The parts of `rect` that `hole` leaves: at most four, above, below, left and right of it. */
export function outside(rect: Rect, hole: Rect): Rect[] {
  const inner = intersect(rect, hole)
  if (inner.width === 0 || inner.height === 0) return [rect]
  const [right, bottom] = [inner.x + inner.width, inner.y + inner.height]
  return [
    { ...rect, height: inner.y - rect.y },
    { ...rect, y: bottom, height: rect.y + rect.height - bottom },
    { ...inner, x: rect.x, width: inner.x - rect.x },
    { ...inner, x: right, width: rect.x + rect.width - right },
  ].filter(({ width, height }) => width > 0 && height > 0)
}

export function sameRect(a: Rect, b: Rect): boolean {
  return a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height
}
