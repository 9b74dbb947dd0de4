/** Repeatable noise for textures: hash, value noise and sums of octaves. */
export function hash(x: number, y: number, z = 0): number {
  let h = Math.imul(x | 0, 0x8da6b343) ^ Math.imul(y | 0, 0xd8163841) ^ Math.imul(z | 0, 0xcb1ab31f)
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296
}

function smooth(t: number): number {
  return t * t * t * (t * (6 * t - 15) + 10)
}

/** Value noise 0-1, smooth, one feature a unit. */
export function noise(x: number, y: number, seed = 0): number {
  const ix = Math.floor(x)
  const iy = Math.floor(y)
  const tx = smooth(x - ix)
  const ty = smooth(y - iy)
  const a = hash(ix, iy, seed)
  const b = hash(ix + 1, iy, seed)
  const c = hash(ix, iy + 1, seed)
  const d = hash(ix + 1, iy + 1, seed)
  return a + tx * (b - a) + ty * (c - a + tx * (a - b - c + d))
}

/** Octaves of value noise, mean near 0.5. */
export function fractal(x: number, y: number, octaves: number, seed = 0): number {
  let sum = 0
  let weight = 0.5
  let total = 0
  for (let i = 0; i < octaves; i++) {
    sum += weight * noise(x, y, seed + i * 17)
    total += weight
    weight *= 0.5
    // Turned a little from octave to octave, so that the lattices do not line up.
    const turned = 1.6 * x - 1.2 * y
    y = 1.2 * x + 1.6 * y
    x = turned
  }
  return sum / total
}

export function mixNumbers(a: number, b: number, t: number): number {
  return a + (b - a) * t
}

export function smoothstep(from: number, to: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)))
  return t * t * (3 - 2 * t)
}
