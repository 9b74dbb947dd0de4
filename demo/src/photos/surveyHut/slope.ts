import { fractal, hash, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import { capsule, implicit, sphere, terrain, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'

/** Height of the snow near the hut, metres: a slope that rises to the right and away, in soft drifts. */
export function snowHeight(x: number, z: number): number {
  const rise = 0.055 * z + 0.06 * x + 0.9 * smoothstep(16, 60, z) * (0.3 + fractal(x * 0.02, z * 0.02, 3, 9)) * (z / 24)
  const drifts = 0.5 * (fractal(x * 0.09, z * 0.16, 3, 11) - 0.5) + 0.1 * (fractal(x * 0.5, z * 1.1, 3, 13) - 0.5)
  const ripples = 0.016 * fractal(x * 1.1 + 0.6 * z, z * 4.6, 3, 15)
  // Wind has scoured a hollow in front of the hut and piled a bank against its side.
  const bank = 0.34 * Math.exp(-(((x + 2.5) / 0.9) ** 2) - ((z - 15) / 2.4) ** 2)
  const track = pathDip(x, z)
  return rise + drifts + ripples * (1 - 0.7 * track) + bank - 0.13 * track
}

/** A trodden path from the camera's left to the door, with its footprints. */
function pathDip(x: number, z: number): number {
  if (z < 1 || z > 13.2) return 0
  const middle = -2.4 + 0.24 * (z - 1) + 0.35 * Math.sin(z * 0.55)
  const trodden = 0.45 * smoothstep(0.42, 0.1, Math.abs(x - middle))
  const stride = 0.36
  const index = Math.floor(z / stride)
  const side = index % 2 === 0 ? -0.12 : 0.12
  const [u, v] = [(x - middle - side) / 0.075, (z - (index + 0.5) * stride) / 0.15]
  return trodden + 0.75 * smoothstep(1.15, 0.75, Math.hypot(u, v))
}

export const snow: Material = ([x, y, z], normal, distance) => {
  const near = smoothstep(30, 3, distance)
  const grain = fractal(x * 55, z * 55 + y * 20, 3, 71)
  const tone = 0.82 + 0.06 * near * (grain - 0.5)
  return {
    albedo: [tone * 0.985, tone * 0.995, tone],
    roughness: 0.96,
    reflectance: 0.015,
    normal: normalise([
      normal[0] + 0.28 * near * (noise(x * 70, z * 70, 1) - 0.5),
      normal[1],
      normal[2] + 0.28 * near * (noise(z * 70, x * 70, 2) - 0.5),
    ]),
  }
}

const mountain: Material = (place, normal, distance) => {
  const [x, y, z] = place
  const steep = 1 - normal[1] + 0.34 * (fractal(x / 14, y / 5 + z / 14, 5, 81) - 0.5)
  const rock = smoothstep(0.3, 0.42, steep)
  const tone = 0.05 + 0.07 * fractal(x / 5, y / 3 + z / 5, 4, 83)
  const white = snow(place, normal, distance)
  return { ...white, albedo: blend(white.albedo, [tone, tone * 0.99, tone * 1.02], rock) }
}

function ridge(z: number, depth: number, height: number, seed: number): Shape {
  const wide = 1.5 * z
  const surface = (x: number, at: number): number => {
    const across = smoothstep(z - depth, z, at) * smoothstep(z + 1.4 * depth, z, at)
    const crest = 0.45 + 0.8 * fractal(x / (0.5 * z) + seed, 2.2, 4, seed)
    const rough = fractal(x / (0.16 * z), at / (0.2 * z), 6, seed + 2)
    return height * across * crest * (0.62 + 0.75 * Math.abs(rough - 0.5) + 0.3 * rough) + 0.03 * z
  }
  return terrain(surface, [-wide, 0, z - depth], [wide, 1.9 * height + 0.03 * z, z + 1.4 * depth], 0.006 * z, mountain)
}

const bark: Material = ([x, y, z]) => {
  const tone = 0.03 + 0.04 * fractal(x * 30 + z * 30, y * 8, 3, 91)
  return { albedo: [tone * 1.2, tone, tone * 0.85], roughness: 0.9, reflectance: 0.02 }
}

const marker: Material = (place) => {
  const over = place[1] - snowHeight(place[0], place[2])
  const band = over > 1.28 && over < 1.56
  const weather = 0.7 + 0.5 * fractal(place[0] * 40, place[1] * 9, 3, 93)
  return {
    albedo: band ? [0.4 * weather, 0.06, 0.035] : [0.16 * weather, 0.13 * weather, 0.1 * weather],
    roughness: 0.7,
    reflectance: 0.03,
  }
}

/** A trail marker with its cap of snow. */
function stake(x: number, z: number, lean: number): Shape[] {
  const y = snowHeight(x, z)
  const top: Vector = [x + lean, y + 1.62, z + 0.02]
  return [capsule([x, y - 0.3, z], top, 0.034, marker), sphere([top[0], top[1] + 0.035, top[2]], 0.05, snow)]
}

/** A stunted spruce: a trunk, and boughs that carry snow. */
function spruce(x: number, z: number, height: number, seed: number): Shape[] {
  const y = snowHeight(x, z)
  const boughs = Array.from({ length: 34 }, (_, i): Shape[] => {
    const up = 0.12 + 0.84 * (i / 34)
    const reach = (0.34 * height * (1 - up) + 0.06) * (0.7 + 0.5 * hash(i, 1, seed))
    const turn = i * 2.4 + hash(i, 2, seed)
    const from: Vector = [x, y + up * height, z]
    const to: Vector = [x + reach * Math.cos(turn), y + up * height - 0.34 * reach, z + reach * Math.sin(turn)]
    const along = (t: number, lift: number): Vector => [
      mixNumbers(from[0], to[0], t),
      mixNumbers(from[1], to[1], t) + lift,
      mixNumbers(from[2], to[2], t),
    ]
    const twigs = [0.35, 0.6, 0.85].flatMap((t, k) =>
      [-1, 1].map((side) => {
        const a = turn + side * 0.9
        const own = 0.3 * reach * (1.1 - t) + 0.05
        const foot = along(t, 0)
        return capsule(foot, [foot[0] + own * Math.cos(a), foot[1] - 0.3 * own, foot[2] + own * Math.sin(a)], 0.022 + 0.006 * k, needles)
      }),
    )
    return [
      capsule(from, to, 0.035, needles),
      ...twigs,
      capsule(along(0.25, 0.045), along(0.92, 0.035), 0.036 + 0.03 * hash(i, 3, seed), snow),
    ]
  }).flat()
  return [capsule([x, y - 0.2, z], [x, y + height, z], 0.05, bark), ...boughs]
}

const needles: Material = ([x, y, z]) => {
  const tone = 0.6 + 0.8 * fractal(x * 40, y * 40 + z * 40, 3, 95)
  return { albedo: [0.014 * tone, 0.026 * tone, 0.016 * tone], roughness: 0.9, reflectance: 0.015 }
}

const granite: Material = ([x, y, z], normal) => {
  const tone = 0.08 + 0.1 * fractal(x * 4, z * 4 + y * 5, 5, 97)
  const white = smoothstep(0.55, 0.75, normal[1] + 0.3 * (fractal(x * 6, z * 6, 3, 98) - 0.5))
  return { albedo: blend([tone, tone * 0.98, tone * 0.96], [0.82, 0.83, 0.85], white), roughness: 0.85, reflectance: 0.03 }
}

function boulder(x: number, z: number, size: number, seed: number): Shape {
  const y = snowHeight(x, z)
  const surface = ([px, py, pz]: Vector): number => {
    const [u, v, w] = [(px - x) / 1.3, (py - y) / 0.8, pz - z]
    return 0.4 * (Math.hypot(u, v, w) - size + 0.5 * size * (fractal((u + v) / size, (w - v) / size, 4, seed) - 0.5))
  }
  const reach = 1.7 * size
  return implicit(surface, { least: [x - reach, y - 0.3, z - reach], most: [x + reach, y + reach, z + reach] }, granite)
}

export function slope(): Shape[] {
  return [
    terrain(snowHeight, [-40, -4, 0.6], [40, 14, 30], 0.05, snow),
    terrain(snowHeight, [-120, -6, 30], [120, 40, 110], 0.3, snow),
    ridge(230, 120, 92, 21),
    ridge(620, 260, 300, 27),
    ridge(1500, 600, 640, 33),
    ...[
      [-4.15, 4.3, 0.1],
      [-5.7, 10.5, -0.06],
      [5.2, 19, 0.05],
      [7.4, 27, -0.04],
      [10.6, 38, 0.06],
    ].flatMap(([x = 0, z = 0, lean = 0]) => stake(x, z, lean)),
    ...spruce(4.35, 9.4, 2.5, 5),
    ...spruce(6.1, 12.6, 3.4, 8),
    ...spruce(-8.2, 19, 3.2, 12),
    ...spruce(-10.4, 24, 4.1, 15),
    ...spruce(12.5, 26, 3.8, 18),
    boulder(2.6, 6.3, 0.36, 3),
    boulder(-6.4, 13, 0.6, 4),
    boulder(8.4, 17, 0.8, 6),
  ]
}
