/** A place of a line and how wide the line is there, photo px. */
export interface WidePlace {
  readonly x: number
  readonly y: number
  readonly width: number
}

/** A flattened path (x, y, x, y …) with its widths: full in the middle, thinner towards its ends by the part `taper`. */
export function withWidths(polyline: readonly number[], width: number, taper: number): WidePlace[] {
  const places = Array.from({ length: polyline.length / 2 }, (_, i) => ({ x: polyline[2 * i] ?? 0, y: polyline[2 * i + 1] ?? 0 }))
  const ways = places.map((place, i) => {
    const before = places[i - 1] ?? place
    return Math.sqrt((place.x - before.x) ** 2 + (place.y - before.y) ** 2)
  })
  const whole = ways.reduce((sum, way) => sum + way, 0)
  let way = 0
  return places.map((place, i) => {
    way += ways[i] ?? 0
    const t = whole > 0 ? way / whole : 0.5
    const thin = Math.min(1, 4 * t * (1 - t) + 0.04)
    return { ...place, width: width * (1 - taper + taper * Math.sqrt(thin)) }
  })
}
