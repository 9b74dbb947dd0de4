// The reference code of W3C Filter Effects Module Level 1, feTurbulence, written out in TypeScript.

const SIZE = 256
const OFFSET = 4096

interface Tables {
  readonly lattice: readonly number[]
  readonly gradients: readonly (readonly (readonly [number, number])[])[]
}

function nextRandom(seed: number): number {
  const result = 16807 * (seed % 127773) - 2836 * Math.trunc(seed / 127773)
  return result <= 0 ? result + 2147483647 : result
}

function tablesOf(wanted: number): Tables {
  let seed = wanted <= 0 ? -(wanted % 2147483646) + 1 : Math.min(wanted, 2147483646)
  const lattice = Array.from({ length: SIZE }, (_, i) => i)
  const gradients = [0, 1, 2, 3].map(() =>
    lattice.map((): [number, number] => {
      const [x, y] = [0, 1].map(() => {
        seed = nextRandom(seed)
        return ((seed % (2 * SIZE)) - SIZE) / SIZE
      }) as [number, number]
      // The reference code divides 0 by 0 where both are; Chromium (Skia) has no gradient there.
      const length = Math.hypot(x, y) || 1
      return [x / length, y / length]
    }),
  )
  for (let i = SIZE - 1; i > 0; i--) {
    seed = nextRandom(seed)
    const j = seed % SIZE
    ;[lattice[i], lattice[j]] = [lattice[j]!, lattice[i]!]
  }
  const twice = <T>(list: readonly T[]): T[] => [...list, ...list, ...list.slice(0, 2)]
  return { lattice: twice(lattice), gradients: gradients.map(twice) }
}

export interface OracleOptions {
  readonly frequency: readonly [number, number]
  readonly octaves: number
  readonly seed: number
  readonly billowed: boolean
  readonly tile?: { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | null
}

/** Value 0-1 of a channel (0 red - 3 alpha) at each of the points. */
export function turbulenceAt(options: OracleOptions, channel: number, points: readonly (readonly [number, number])[]): number[] {
  const tables = tablesOf(options.seed)
  return points.map((point) => oneValue(options, tables, channel, point))
}

function oneValue(
  { frequency, octaves, billowed, tile }: OracleOptions,
  tables: Tables,
  channel: number,
  point: readonly [number, number],
): number {
  let [waveX, waveY] = frequency
  let stitch: { width: number; height: number; wrapX: number; wrapY: number } | undefined
  if (tile) {
    const fit = (f: number, side: number): number => {
      if (f === 0) return 0
      const [low, high] = [Math.floor(side * f) / side, Math.ceil(side * f) / side]
      return f / low < high / f ? low : high
    }
    waveX = fit(waveX, tile.width)
    waveY = fit(waveY, tile.height)
    const [width, height] = [Math.trunc(tile.width * waveX + 0.5), Math.trunc(tile.height * waveY + 0.5)]
    stitch = { width, height, wrapX: Math.trunc(tile.x * waveX + OFFSET + width), wrapY: Math.trunc(tile.y * waveY + OFFSET + height) }
  }
  let [x, y, ratio, sum] = [point[0] * waveX, point[1] * waveY, 1, 0]
  for (let octave = 0; octave < octaves; octave++) {
    const n = noise(tables, channel, x, y, stitch)
    sum += (billowed ? Math.abs(n) : n) / ratio
    x *= 2
    y *= 2
    ratio *= 2
    if (stitch)
      stitch = { width: stitch.width * 2, height: stitch.height * 2, wrapX: 2 * stitch.wrapX - OFFSET, wrapY: 2 * stitch.wrapY - OFFSET }
  }
  return Math.min(1, Math.max(0, billowed ? sum : (sum + 1) / 2))
}

function noise(
  { lattice, gradients }: Tables,
  channel: number,
  px: number,
  py: number,
  stitch: { width: number; height: number; wrapX: number; wrapY: number } | undefined,
): number {
  const along = (p: number, wrap: number, length: number) => {
    const t = p + OFFSET
    const floor = Math.trunc(t)
    const wrapped = [floor, floor + 1].map((b) => (stitch && b >= wrap ? b - length : b) & 255)
    return { b0: wrapped[0]!, b1: wrapped[1]!, r0: t - floor, r1: t - floor - 1 }
  }
  const u = along(px, stitch?.wrapX ?? 0, stitch?.width ?? 0)
  const v = along(py, stitch?.wrapY ?? 0, stitch?.height ?? 0)
  const corner = (bx: number, by: number, rx: number, ry: number): number => {
    const [gx, gy] = gradients[channel]![lattice[lattice[bx]! + by]!]!
    return rx * gx + ry * gy
  }
  const s = (t: number): number => t * t * (3 - 2 * t)
  const mix = (t: number, a: number, b: number): number => a + t * (b - a)
  const top = mix(s(u.r0), corner(u.b0, v.b0, u.r0, v.r0), corner(u.b1, v.b0, u.r1, v.r0))
  const bottom = mix(s(u.r0), corner(u.b0, v.b1, u.r0, v.r1), corner(u.b1, v.b1, u.r1, v.r1))
  return mix(s(v.r0), top, bottom)
}
