import { fractal, hash, noise, smoothstep } from '../../tracer/noise'
import { terrain, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'

// Wooded shores and ridges, one behind the other, on both sides of the water.

interface Ridge {
  /** How far away its middle lies, metres, and how deep it is. */
  readonly z: number
  readonly depth: number
  readonly height: number
  /** Where it stands: -1 at the left, 1 at the right, 0 across the whole inlet. */
  readonly side: -1 | 0 | 1
  /** Where its foot meets the water, metres from the middle. */
  readonly foot: number
  /** Height of its trees. */
  readonly trees: number
  readonly seed: number
}

const ridges: readonly Ridge[] = [
  { z: 92, depth: 46, height: 17, side: 1, foot: 15, trees: 11, seed: 3 },
  { z: 165, depth: 70, height: 30, side: -1, foot: -26, trees: 13, seed: 11 },
  { z: 330, depth: 140, height: 62, side: 1, foot: 34, trees: 15, seed: 17 },
  { z: 640, depth: 240, height: 120, side: -1, foot: -20, trees: 16, seed: 23 },
  { z: 1250, depth: 480, height: 250, side: 0, foot: 0, trees: 18, seed: 31 },
  { z: 2600, depth: 900, height: 560, side: 0, foot: 0, trees: 0, seed: 41 },
]

/** Pointed crowns in a lattice of cells: the height of the wood above the ground. */
function wood(x: number, z: number, height: number, seed: number): number {
  const cell = 0.3 * height + 0.6
  const [i, j] = [Math.floor(x / cell), Math.floor(z / cell)]
  let top = 0
  for (let a = i - 1; a <= i + 1; a++) {
    for (let b = j - 1; b <= j + 1; b++) {
      const own = height * (0.5 + 0.5 * hash(a, b, seed))
      const dx = x - (a + 0.15 + 0.7 * hash(a, b, seed + 1)) * cell
      const dz = z - (b + 0.15 + 0.7 * hash(a, b, seed + 2)) * cell
      const away = Math.hypot(dx, dz) / (0.23 * own + 0.25)
      // Boughs in tiers, ragged.
      const tier = 0.06 * Math.sin(away * 26 + 9 * hash(a, b, seed + 3)) + 0.1 * (noise(x * 5, z * 5, seed) - 0.5)
      top = Math.max(top, own * (1 - away + tier * away))
    }
  }
  return top
}

function ridgeShape(ridge: Ridge): Shape {
  const { z, depth, side, height, foot, trees, seed } = ridge
  const wide = 1.5 * z + 60
  const ground = (x: number, at: number): number => {
    const inland =
      side === 0
        ? 1
        : smoothstep(0, 1, ((x - foot) * side) / (0.75 * wide) + 0.12 * (fractal(x / (0.2 * z), at / (0.2 * z), 4, seed) - 0.5))
    const across = smoothstep(z - depth, z - 0.2 * depth, at) * smoothstep(z + depth, z + 0.2 * depth, at)
    const rough = 0.55 + 0.9 * fractal(x / (0.34 * z) + seed, at / (0.5 * z), 5, seed)
    const open = side === 0 ? 0.35 + 0.65 * smoothstep(0, 0.5 * wide, Math.abs(x - 0.12 * z)) : 1
    return height * inland ** 0.7 * across * rough * open - 0.8
  }
  const surface = (x: number, at: number): number => {
    const base = ground(x, at)
    return trees > 0 && base > 0.7
      ? base + wood(x, at, trees * (0.6 + 0.6 * fractal(x / 40, at / 40, 3, seed + 5)), seed) * smoothstep(0.7, 3, base)
      : base
  }
  const least: Vector = [side > 0 ? foot - 25 : -wide, -0.4, z - depth]
  const most: Vector = [side < 0 ? foot + 25 : wide, 1.7 * height + trees + 2, z + depth]
  return terrain(surface, least, most, Math.max(0.1, 0.0022 * z), z > 2000 ? stone : needles(seed))
}

export function shores(): Shape[] {
  return ridges.map(ridgeShape)
}

const needles =
  (seed: number): Material =>
  ([x, y, z], normal) => {
    const bough = fractal(x * 2.2, y * 5 + z * 2.2, 4, seed)
    const tree = hash(Math.floor(x / 3), Math.floor(z / 3), seed)
    const bank = smoothstep(1.6, 0.3, y)
    const green: Vector = [0.018 + 0.022 * bough + 0.014 * tree, 0.03 + 0.034 * bough, 0.016 + 0.012 * bough]
    const rock: Vector = [0.13, 0.125, 0.115]
    return {
      albedo: blend(
        blend(green, rock, 0.8 * bank * smoothstep(0.35, 0.6, fractal(x, z + y, 3, 9))),
        [0.02, 0.02, 0.018],
        smoothstep(0.35, 0, y),
      ),
      roughness: 0.9,
      reflectance: 0.015,
      normal: normalise([
        normal[0] + 0.9 * (noise(x * 4, z * 4, seed) - 0.5),
        Math.max(0.25, normal[1]),
        normal[2] + 0.9 * (noise(z * 4, x * 4, seed) - 0.5),
      ]),
    }
  }

const stone: Material = ([x, y, z]) => {
  const tone = 0.1 + 0.08 * fractal(x / 60, y / 30 + z / 60, 5, 77)
  return { albedo: [tone * 0.96, tone, tone * 1.04], roughness: 0.9, reflectance: 0.02 }
}
