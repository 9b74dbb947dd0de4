import type { PhotoDefinition } from '../photo'
import { fractal, hash, mixNumbers, noise, smoothstep } from '../tracer/noise'
import { box, capsule, chamferedBox, convex, floor, sphere, type Material, type Shape } from '../tracer/shapes'
import { buildTree } from '../tracer/tree'
import { blend, normalise, scale, type Vector } from '../tracer/vector'
import type { Light } from '../tracer/trace'

// The Marrow Sound night ferry at its quay, at blue hour after rain. Metres; x to the right, y up, z away.

const QUAY_EDGE = 3.1
const WATER_LEVEL = -1.35
const WARM: Vector = [1, 0.6, 0.25]

// Sky, far shore

function ridge(angle: number, scaleOf: number, height: number, seed: number): number {
  return height * (0.35 + 0.65 * fractal(angle * scaleOf + 40, 3.7, 5, seed))
}

function sky(direction: Vector): Vector {
  const [x, y, z] = direction
  const up = Math.max(y, -0.02)
  const west = smoothstep(-0.2, 0.9, z * 0.8 - x * 0.45)
  let colour = blend([0.062, 0.098, 0.19], [0.01, 0.022, 0.062], smoothstep(0, 0.75, up))
  const glow = Math.exp(-up * 11) * west
  colour = [colour[0] + 0.2 * glow, colour[1] + 0.1 * glow, colour[2] + 0.045 * glow]
  const flat = 1 / (up + 0.09)
  const cover = fractal(x * flat * 0.62 + 3.1, z * flat * 1.15 + 1.7, 6, 5)
  const cloud = smoothstep(0.46, 0.74, cover) * smoothstep(-0.01, 0.09, up)
  const lit = blend([0.018, 0.027, 0.054], [0.13, 0.078, 0.07], Math.exp(-up * 6) * west)
  colour = blend(colour, lit, 0.75 * cloud)
  const angle = Math.atan2(x, z)
  const far = ridge(angle, 5, 0.075, 11)
  const near = ridge(angle, 9, 0.036, 23)
  if (y < far) colour = blend(colour, [0.034, 0.048, 0.088], smoothstep(0, 0.003, far - y))
  if (y < near) colour = blend(colour, [0.013, 0.018, 0.032], smoothstep(0, 0.002, near - y))
  return y < near ? addShoreLights(colour, angle, y) : colour
}

/** Houses on the other shore: small warm points close above the water. */
function addShoreLights(colour: Vector, angle: number, y: number): Vector {
  const cell = 0.011
  const i = Math.floor(angle / cell)
  if (hash(i, 7, 3) > 0.3) return colour
  const dx = angle - (i + 0.2 + 0.6 * hash(i, 1, 4)) * cell
  const dy = y - (0.003 + 0.011 * hash(i, 2, 4))
  const glow = 2.6 * hash(i, 3, 4) * Math.exp(-(dx * dx + dy * dy) / (2 * 0.0011 ** 2))
  const warm = hash(i, 4, 4)
  return [colour[0] + glow, colour[1] + glow * (0.55 + 0.25 * warm), colour[2] + glow * (0.25 + 0.35 * warm)]
}

// Surfaces

/** Height of the paving: rows of worn setts with joints. Returns the height, the joint (0-1) and the stone's number. */
function paving(x: number, z: number): { height: number; joint: number; stone: number } {
  const coping = x > QUAY_EDGE - 0.62
  const depth = coping ? 1.15 : 0.165
  const wide = coping ? 0.66 : 0.245
  const shiftedX = coping ? x - QUAY_EDGE + 0.62 : x + 0.012 * (noise(x * 3, z * 3, 2) - 0.5)
  const row = Math.floor(z / depth)
  const offset = coping ? 0 : (row % 2) * 0.5 * wide + 0.05 * (hash(row, 5, 1) - 0.5)
  const column = Math.floor((shiftedX + offset) / wide)
  const u = (shiftedX + offset) / wide - column
  const v = z / depth - row
  const stone = hash(column, row, coping ? 9 : 8)
  const edge = Math.min(u * wide, (1 - u) * wide, v * depth, (1 - v) * depth)
  const rough = 0.006 * (noise(x * 60, z * 60, 14) - 0.5)
  const joint = 1 - smoothstep(0.003, coping ? 0.012 : 0.016, edge + rough)
  const dome = (coping ? 0.004 : 0.016) * smoothstep(0, coping ? 0.05 : 0.07, edge)
  const grain = 0.005 * fractal(x * 34, z * 34, 4, 31) + 0.0016 * noise(x * 190, z * 190, 33)
  return { height: dome + grain + 0.007 * stone - 0.012 * joint, joint, stone }
}

const wetStone: Material = ([x, , z], _normal, distance) => {
  const here = paving(x, z)
  const step = 0.0025 + 0.0009 * distance
  const slopeX = (paving(x + step, z).height - here.height) / step
  const slopeZ = (paving(x, z + step).height - here.height) / step
  // Water stands where the ground is low and in the worn tracks.
  const hollow = fractal(x * 0.42 + 7, z * 0.3 + 2, 4, 51) + 0.16 * smoothstep(1.4, 0, Math.abs(x + 0.1 + 0.35 * Math.sin(z * 0.35)))
  const level = smoothstep(0.61, 0.76, hollow)
  const puddle = smoothstep(0.35, 0.75, level + 0.5 * (level > 0 ? here.joint - here.height * 18 : 0))
  const film = 0.55 + 0.45 * fractal(x * 2.6, z * 2.6, 3, 61)
  const tone = (0.05 + 0.085 * here.stone) * (0.7 + 0.6 * fractal(x * 21, z * 21, 4, 71)) * (1 - 0.7 * here.joint)
  const hue = hash(Math.floor(here.stone * 997), 3, 2)
  const dry: Vector = [tone * (1.02 + 0.1 * hue), tone, tone * (0.98 - 0.1 * hue)]
  const bump = ((1 - puddle) * (1 - 0.25 * film)) / (1 + 0.035 * distance)
  const rippleX = 0.02 * (noise(x * 5, z * 5, 81) - noise(x * 5 + 0.4, z * 5, 81)) * puddle
  return {
    albedo: scale(dry, mixNumbers(0.62, 0.34, puddle)),
    roughness: mixNumbers(mixNumbers(0.42, 0.24, film), 0.03, puddle),
    reflectance: mixNumbers(0.035, 0.026, puddle),
    normal: normalise([-slopeX * bump + rippleX, 1, -slopeZ * bump]),
  }
}

const water: Material = ([x, , z], _normal, distance) => {
  const wave = (a: number, b: number): number => 0.05 * fractal(a * 0.55, b * 0.34, 3, 91) + 0.014 * fractal(a * 2.6, b * 1.9, 3, 95)
  const step = 0.03 + 0.002 * distance
  const here = wave(x, z)
  const fade = 1 / (1 + 0.012 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  return { albedo: [0.006, 0.011, 0.014], roughness: 0.05, reflectance: 0.021, normal: normalise([-slopeX, 1, -slopeZ]) }
}

const iron: Material = ([x, y, z]) => {
  const rust = smoothstep(0.55, 0.75, fractal(x * 9 + z * 5, y * 9, 4, 101))
  return { albedo: blend([0.016, 0.018, 0.021], [0.07, 0.032, 0.016], rust), roughness: mixNumbers(0.34, 0.7, rust), reflectance: 0.05 }
}

const rope: Material = ([x, y, z]) => {
  const lay = 0.5 + 0.5 * Math.sin(90 * (x + y + z))
  return { albedo: scale([0.17, 0.13, 0.08], 0.5 + 0.5 * lay), roughness: 0.9, reflectance: 0.02 }
}

const wood: Material = ([x, y, z]) => {
  const grain = fractal(x * 3 + y * 40, z * 3 + y * 6, 4, 111)
  const board = Math.floor(y / 0.16)
  const gap = smoothstep(0.0, 0.012, Math.abs(y / 0.16 - board - 0.5) * -0.16 + 0.08)
  const tone = (0.4 + 0.9 * grain) * (0.75 + 0.5 * hash(board, 2, 2)) * (0.25 + 0.75 * gap)
  return { albedo: scale([0.1, 0.07, 0.046], tone), roughness: 0.5, reflectance: 0.035 }
}

/** Rubble masonry of the waiting house. */
const masonry: Material = ([x, y, z], normal) => {
  const along = Math.abs(normal[0]) > 0.5 ? z : x
  const row = Math.floor(y / 0.31)
  const shifted = along + 0.33 * hash(row, 3, 6)
  const column = Math.floor(shifted / 0.62)
  const u = shifted / 0.62 - column
  const v = y / 0.31 - row
  const edge = Math.min(u * 0.62, (1 - u) * 0.62, v * 0.31, (1 - v) * 0.31) + 0.012 * (noise(along * 30, y * 30, 7) - 0.5)
  const mortar = 1 - smoothstep(0.008, 0.028, edge)
  const damp = smoothstep(1.6, 0, y + 0.8 * fractal(along * 1.2, 3, 3, 8))
  const tone = (0.075 + 0.09 * hash(column, row, 12)) * (0.6 + 0.8 * fractal(along * 14, y * 14, 4, 13)) * (1 - 0.5 * damp)
  const stone: Vector = [tone * 1.06, tone, tone * 0.92]
  const bump = 3.2 * (fractal(along * 14 + 0.05, y * 14, 3, 13) - fractal(along * 14, y * 14, 3, 13))
  const tilt: Vector = Math.abs(normal[0]) > 0.5 ? [normal[0], bump * 0.4, bump] : [bump, bump * 0.4, normal[2]]
  return {
    albedo: blend(stone, [0.1, 0.096, 0.09], mortar * 0.7),
    roughness: 0.75 - 0.3 * damp,
    reflectance: 0.03,
    normal: normalise(tilt),
  }
}

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

const glassLight =
  (radiance: Vector): Material =>
  () => ({ albedo: [0, 0, 0], roughness: 1, reflectance: 0, emission: radiance })

// Things

function lamp(x: number, z: number, height: number, radiance: Vector): { shapes: Shape[]; light: Light } {
  const centre: Vector = [x, height, z]
  const shapes = [
    capsule([x, 0, z], [x, 0.5, z], 0.115, iron),
    capsule([x, 0.5, z], [x, 0.62, z], 0.085, iron),
    capsule([x, 0.5, z], [x, height - 0.3, z], 0.052, iron),
    capsule([x, height - 0.34, z], [x, height - 0.24, z], 0.11, iron),
    ...[0, 1, 2, 3].map((i) => {
      const a = (i + 0.5) * (Math.PI / 2)
      return capsule(
        [x + 0.12 * Math.cos(a), height - 0.26, z + 0.12 * Math.sin(a)],
        [x + 0.2 * Math.cos(a), height + 0.27, z + 0.2 * Math.sin(a)],
        0.011,
        iron,
      )
    }),
    capsule([x, height + 0.3, z], [x, height + 0.34, z], 0.2, iron),
    sphere([x, height + 0.58, z], 0.05, iron),
    capsule([x, height + 0.34, z], [x, height + 0.56, z], 0.03, iron),
    sphere(centre, 0.13, glassLight(radiance)),
  ]
  return { shapes, light: { centre, radius: 0.13, radiance } }
}

function bollard(z: number): Shape[] {
  const x = QUAY_EDGE - 0.36
  return [
    capsule([x, 0, z], [x, 0.38, z], 0.105, iron),
    capsule([x - 0.06, 0.43, z], [x + 0.06, 0.43, z], 0.125, iron),
    capsule([x, 0.0, z], [x, 0.01, z], 0.17, iron),
  ]
}

/** A slack line between two places, as a row of rods. */
function line(from: Vector, to: Vector, sag: number, radius: number, material: Material): Shape[] {
  const count = 14
  const at = (i: number): Vector => {
    const t = i / count
    const drop = sag * 4 * t * (1 - t)
    return [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) - drop, mixNumbers(from[2], to[2], t)]
  }
  return Array.from({ length: count }, (_, i) => capsule(at(i), at(i + 1), radius, material))
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

function ferry(): Shape[] {
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

function waitingHouse(): Shape[] {
  const door: Material = (place, normal, distance) => {
    const [, y, z] = place
    if (normal[0] > 0.5) {
      const inDoor = Math.abs(z - 15.2) < 0.55 && y < 2.2 && y > 0.05
      const inWindow = [12.1, 18.6].some((at) => Math.abs(z - at) < 0.5) && y > 1.15 && y < 2.25
      const bar = inWindow && [12.1, 18.6].some((at) => Math.abs(z - at) < 0.025) ? true : Math.abs(y - 1.72) < 0.02 && inWindow
      if (inWindow && !bar) {
        const level = 0.17 * (0.55 + 0.7 * fractal(z * 2.3, y * 2.1, 3, 141))
        return { albedo: [0.01, 0.01, 0.01], roughness: 0.03, reflectance: 0.04, emission: scale([1, 0.62, 0.28], level) }
      }
      if (bar) return { albedo: [0.2, 0.2, 0.19], roughness: 0.5, reflectance: 0.04 }
      if (inDoor) return { albedo: [0.03, 0.06, 0.055], roughness: 0.4, reflectance: 0.045 }
    }
    return masonry(place, normal, distance)
  }
  const slate: Material = ([x, y, z]) => {
    const row = Math.floor((x + y) / 0.22)
    const tone = 0.03 + 0.03 * hash(row, Math.floor(z / 0.3 + 0.5 * (row % 2)), 15)
    return { albedo: [tone * 0.95, tone, tone * 1.1], roughness: 0.32, reflectance: 0.045 }
  }
  const slope: Vector = normalise([0.75, 1, 0])
  const roof = convex(
    [
      { normal: slope, offset: slope[0] * -4.35 + slope[1] * 3.05 },
      { normal: [-slope[0], slope[1], 0], offset: -slope[0] * -10.6 + slope[1] * 3.05 },
      { normal: [0, -1, 0], offset: -3 },
      { normal: [0, 0, 1], offset: 22.6 },
      { normal: [0, 0, -1], offset: -9.6 },
    ],
    { least: [-10.8, 3, 9.6], most: [-4.2, 5.6, 22.6] },
    slate,
  )
  return [
    box([-10.3, 0, 10], [-4.7, 3.1, 22.2], door),
    roof,
    box([-6.2, 4.2, 12.4], [-5.6, 5.9, 13], masonry),
    capsule([-4.62, 0, 10.15], [-4.62, 3, 10.15], 0.045, iron),
  ]
}

function cargo(): Shape[] {
  return [
    box([-3.5, 0, 7.5], [-2.65, 0.66, 8.45], wood),
    box([-3.42, 0.66, 7.62], [-2.86, 1.14, 8.2], wood),
    box([-4.35, 0, 7.9], [-3.62, 0.52, 8.7], wood),
    // A coil of rope.
    ...Array.from({ length: 40 }, (_, i) => {
      const a = i * 0.47
      const b = a + 0.47
      const r = 0.3 - 0.0015 * i
      const y = 0.04 + 0.0042 * i
      return capsule(
        [-1.9 + r * Math.cos(a), y, 6.3 + r * Math.sin(a)],
        [-1.9 + r * Math.cos(b), y + 0.0042, 6.3 + r * Math.sin(b)],
        0.032,
        rope,
      )
    }),
  ]
}

const lamps = [lamp(-1.35, 10.6, 3.9, scale(WARM, 230)), lamp(-1.1, 24.5, 3.9, scale(WARM, 230))]

const shapes: Shape[] = [
  floor(0, [-40, -4], [QUAY_EDGE, 74], wetStone),
  box([-40, -3, -4], [QUAY_EDGE - 0.001, -0.01, 74], masonry),
  floor(WATER_LEVEL, [-400, -50], [900, 1600], water),
  ...lamps.flatMap((one) => one.shapes),
  ...[7.2, 14.5, 22, 30].flatMap(bollard),
  ...line([QUAY_EDGE - 0.36, 0.36, 7.2], [4.7, 1.42, 13.6], 0.42, 0.034, rope),
  ...line([QUAY_EDGE - 0.36, 0.36, 14.5], [4.3, 1.4, 18.5], 0.3, 0.034, rope),
  ...ferry(),
  ...waitingHouse(),
  ...cargo(),
]

export const ferryQuay: PhotoDefinition = {
  name: 'ferry-quay',
  scene: {
    intersect: buildTree(shapes),
    lights: lamps.map((one) => one.light),
    sky,
    air: { colour: [0.034, 0.048, 0.088], density: 0.0012 },
  },
  camera: { place: [-0.35, 1.62, 0], target: [0.95, 1.86, 14], fieldOfView: 64, aperture: 0.004, focus: 13 },
  develop: { exposure: 2.45, flare: 0.04, noise: 1, balance: [0.98, 1, 1.04] },
}
