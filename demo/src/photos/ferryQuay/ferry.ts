import { fractal, hash, noise, smoothstep } from '../../tracer/noise'
import { capsule, chamferedBox, convex, sphere, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, scale, type Vector } from '../../tracer/vector'
import { glassLight, iron } from './materials'

/** Painted steel plates with seams, streaks of rust and a waterline. */
function hullPaint(base: Vector, boot: Vector): Material {
  return ([, y, z], normal) => {
    const plate = Math.min(Math.abs(((z / 2.4) % 1) - 0.5), 0.5) < 0.006 || Math.abs(((y / 1.1 + 10) % 1) - 0.5) < 0.008 ? 0.78 : 1
    const streak = smoothstep(0.62, 0.85, fractal(z * 5.5, y * 0.35, 4, 121)) * smoothstep(2.6, 0.2, y)
    const under = smoothstep(-0.62, -0.66, y + 0.02 * noise(z * 4, 1, 5))
    const paint = blend(scale(base, plate * (0.88 + 0.24 * fractal(z * 1.5, y * 1.5, 4, 131))), [0.11, 0.05, 0.026], 0.55 * streak)
    const buckle = 0.03 * (fractal(z * 0.8, y * 1.1, 3, 133) - 0.5)
    return {
      albedo: blend(paint, boot, under),
      roughness: 0.3 + 0.3 * streak,
      reflectance: 0.045,
      normal: normalise([normal[0], normal[1] + buckle, normal[2] + buckle]),
    }
  }
}

/** White superstructure. The windows are cut into the paint: warm rooms with curtains, lamps and people's shadows. */
function cabinWall(rows: readonly WindowRow[]): Material {
  const paint = hullPaint([0.52, 0.53, 0.52], [0.52, 0.53, 0.52])
  return (place, normal, distance) => {
    const [x, y, z] = place
    const row = normal[0] < -0.9 ? rows.find((r) => y > r.from && y < r.to && z > r.first && z < r.last) : frontRow(rows, normal, x, y)
    if (row) {
      const along = normal[0] < -0.9 ? z : x - row.first * 0.37
      const index = Math.floor((along - row.first) / row.pitch)
      const u = ((along - row.first) / row.pitch - index - 0.5) * row.pitch
      const v = (y - row.from) / (row.to - row.from)
      const inside = row.width / 2 - Math.abs(u)
      if (inside > 0) {
        if (inside < 0.045 || v < 0.05 || v > 0.95) return { albedo: [0.05, 0.05, 0.05], roughness: 0.4, reflectance: 0.05 }
        return cabinWindow(u, v, index + rows.indexOf(row) * 40)
      }
    }
    return paint(place, normal, distance)
  }
}

interface WindowRow {
  readonly from: number
  readonly to: number
  readonly first: number
  readonly last: number
  readonly pitch: number
  readonly width: number
}

/** Windows go on round the front, except close to its corners. */
function frontRow(rows: readonly WindowRow[], normal: Vector, x: number, y: number): WindowRow | undefined {
  return normal[2] < -0.9 && x > 6.3 && x < 10.3 ? rows.find((row) => y > row.from && y < row.to) : undefined
}

function cabinWindow(u: number, v: number, index: number): ReturnType<Material> {
  const dark = hash(index, 1, 77) < 0.12
  const curtain = smoothstep(0.16, 0.1, Math.abs(u) < 0.12 ? 1 : 0.5 - Math.abs(u)) * (hash(index, 2, 77) < 0.5 ? 1 : 0)
  const ceiling = Math.exp(-((v - 0.86) ** 2) / 0.012) * (0.4 + 0.6 * hash(index, 5, 77))
  const clutter = 0.55 + 0.75 * fractal(u * 5 + index * 3.1, v * 4, 3, 79) - 0.5 * smoothstep(0.34, 0.2, v)
  const someone = hash(index, 3, 77) < 0.3 ? 1 : 0
  const seat = 0.22 * (hash(index, 4, 77) - 0.5)
  const head = smoothstep(0.075, 0.05, Math.hypot(u - seat, (v - 0.44) * 0.66))
  const shoulders = smoothstep(0.03, -0.03, Math.abs(u - seat) - 0.17 * smoothstep(0.36, 0.2, v) * smoothstep(-0.3, 0, 0.4 - v))
  const person = someone * Math.max(head, v < 0.34 ? shoulders : 0)
  const level =
    (dark ? 0.05 : 1) *
    (0.75 + 0.5 * hash(index, 6, 77)) *
    Math.max(0.06, clutter + 1.1 * ceiling) *
    (1 - 0.6 * person) *
    (1 - 0.35 * curtain)
  const warm = 0.1 * hash(index, 7, 77)
  return {
    albedo: [0.01, 0.01, 0.01],
    roughness: 0.02,
    reflectance: 0.04,
    emission: scale([1, 0.56 + warm, 0.2 + 1.4 * warm], 0.34 * level),
  }
}

/** A covered boat: flat sheer, sides that lean in to the keel, pointed ends. */
function lifeboat(): Shape {
  const [x, y, z] = [5.15, 6.6, 29.2]
  const side = (sign: number): Vector => normalise([sign, -0.55, 0])
  const end = (sign: number, aside: number): Vector => normalise([aside * 0.75, -0.35, sign])
  const through = (normal: Vector, place: Vector) => ({
    normal,
    offset: normal[0] * place[0] + normal[1] * place[1] + normal[2] * place[2],
  })
  const roof = (sign: number): Vector => normalise([sign * 0.8, 1, 0])
  return convex(
    [
      ...[-1, 1].map((sign) => through(side(sign), [x + sign * 0.62, y, z])),
      ...[-1, 1].flatMap((sign) => [-1, 1].map((aside) => through(end(sign, aside), [x + aside * 0.5, y, z + sign * 1.75]))),
      ...[-1, 1].map((sign) => through(roof(sign), [x + sign * 0.5, y + 0.1, z])),
      through([0, -1, 0], [x, y - 0.7, z]),
    ],
    { least: [x - 0.8, y - 0.8, z - 2.6], most: [x + 0.8, y + 0.9, z + 2.6] },
    ([, height], normal) => ({
      albedo: height > y + 0.03 ? [0.42, 0.13, 0.035] : [0.5, 0.5, 0.48],
      roughness: 0.45,
      reflectance: 0.04,
      normal,
    }),
  )
}

export function ferry(): Shape[] {
  const side = 4.25
  const hull = hullPaint([0.03, 0.055, 0.075], [0.13, 0.026, 0.02])
  const white = hullPaint([0.5, 0.51, 0.5], [0.5, 0.51, 0.5])
  const bow: Vector = normalise([-0.42, -0.12, -1])
  const flare: Vector = normalise([-1, -0.16, 0])
  const body = convex(
    [
      { normal: flare, offset: flare[0] * side + flare[1] * 1.35 },
      { normal: [1, 0, 0], offset: 12.5 },
      { normal: [0, 1, 0], offset: 1.35 },
      { normal: [0, -1, 0], offset: 1.6 },
      { normal: [0, 0, 1], offset: 44 },
      { normal: bow, offset: bow[0] * side + bow[1] * 1.35 + bow[2] * 12.6 },
    ],
    { least: [side - 0.1, -1.6, 8], most: [12.5, 1.35, 44] },
    hull,
  )
  const saloon = cabinWall([
    { from: 2.05, to: 2.78, first: 17.4, last: 40, pitch: 1.42, width: 0.98 },
    { from: 4.62, to: 5.2, first: 20.6, last: 37, pitch: 1.26, width: 0.82 },
  ])
  const rail = Array.from({ length: 17 }, (_, i) => 13.4 + i * 1.75)
  return [
    body,
    // Rubbing strake along the hull.
    capsule([side - 0.02, 1.2, 13.1], [side - 0.02, 1.2, 44], 0.09, iron),
    chamferedBox([4.95, 1.35, 16.6], [11.6, 3.75, 42], 0.9, saloon),
    chamferedBox([4.72, 3.75, 15.9], [11.9, 3.9, 42.6], 1.1, white),
    chamferedBox([5.6, 3.9, 19.8], [11, 5.75, 38.4], 0.7, saloon),
    chamferedBox([5.4, 5.75, 19.2], [11.2, 5.86, 39], 0.9, white),
    // Wheelhouse with its window band, funnel, mast.
    chamferedBox(
      [6.1, 5.86, 20.6],
      [10.4, 7.5, 25],
      0.5,
      cabinWall([{ from: 6.55, to: 7.2, first: 20.9, last: 24.8, pitch: 0.95, width: 0.82 }]),
    ),
    chamferedBox([5.95, 7.5, 20.2], [10.6, 7.62, 25.3], 0.6, white),
    capsule([8.3, 5.9, 31], [8.5, 9.4, 31.6], 0.95, hullPaint([0.24, 0.045, 0.03], [0.24, 0.045, 0.03])),
    capsule([8.3, 7.6, 22.5], [8.3, 11.6, 22.7], 0.06, iron),
    capsule([7.3, 9.8, 22.6], [9.3, 9.8, 22.6], 0.035, iron),
    sphere([8.3, 11.75, 22.7], 0.07, glassLight([7, 6.4, 5.2])),
    // Railing of the main deck.
    ...rail.map((z) => capsule([side + 0.18, 1.35, z], [side + 0.18, 2.35, z], 0.022, white)),
    ...[1.7, 2.03, 2.36].map((y) => capsule([side + 0.18, y, 13.4], [side + 0.18, y, 42], 0.018, white)),
    // Upper railing, lifeboat in its davits, life rings on the saloon.
    ...Array.from({ length: 16 }, (_, i) => capsule([4.85, 3.9, 16.6 + i * 1.5], [4.85, 4.8, 16.6 + i * 1.5], 0.018, white)),
    ...[4.2, 4.5, 4.8].map((y) => capsule([4.85, y, 16.6], [4.85, y, 39.1], 0.015, white)),
    ...Array.from({ length: 5 }, (_, i) => capsule([5.4 + i * 1.4, 3.9, 16.3], [5.4 + i * 1.4, 4.8, 16.3], 0.018, white)),
    ...[4.2, 4.5, 4.8].map((y) => capsule([5.4, y, 16.3], [11, y, 16.3], 0.015, white)),
    lifeboat(),
    ...[27.4, 31].flatMap((z) => [
      capsule([5.7, 5.86, z], [5.5, 7.2, z], 0.05, white),
      capsule([5.5, 7.2, z], [5.1, 7.3, z], 0.045, white),
    ]),
    // Fore deck: windlass, jack staff, bulwark.
    capsule([6.2, 1.5, 14.6], [8, 1.5, 14.6], 0.22, iron),
    capsule([5.1, 1.35, 13.2], [5.1, 3.4, 13], 0.03, white),
    // Fenders against the quay.
    ...[15.5, 19.5, 24, 29].map((z) => capsule([4.08, -0.35, z], [4.08, 0.3, z], 0.17, iron)),
    // Deck lamps.
    ...[18.2, 26, 34].map((z) => sphere([4.82, 3.62, z], 0.055, glassLight([9, 6.6, 3.6]))),
  ]
}
