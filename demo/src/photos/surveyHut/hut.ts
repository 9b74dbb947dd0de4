import { fractal, hash, smoothstep } from '../../tracer/noise'
import { box, capsule, convex, sphere, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, scale, type Vector } from '../../tracer/vector'
import { snow, snowHeight } from './slope'

// A small survey hut, painted red, its gable towards the camera. Ridge along z.

const [LEFT, RIGHT, FRONT, BACK] = [-1.9, 1.5, 13.4, 17.2]
const MIDDLE = (LEFT + RIGHT) / 2
const GROUND = snowHeight(MIDDLE, FRONT) - 0.35
const EAVES = GROUND + 2.35
const PITCH = 0.72

const boards: Material = ([x, y, z], normal) => {
  const along = Math.abs(normal[0]) > 0.5 ? z : x
  const width = 0.135
  const board = Math.floor(along / width)
  const inside = Math.abs(along / width - board - 0.5)
  const gap = smoothstep(0.5, 0.46, inside)
  const grain = fractal(along * 60, y * 3 + board, 4, 51)
  const worn = smoothstep(0.55, 0.8, fractal(along * 5, y * 1.2, 4, 53)) * (0.4 + 0.6 * hash(board, 1, 55))
  const red: Vector = scale([0.27, 0.032, 0.022], (0.7 + 0.5 * grain) * (0.85 + 0.3 * hash(board, 2, 57)))
  const rime = 0.55 * smoothstep(GROUND + 1.15, GROUND + 0.3, y + 0.4 * fractal(along * 7, y * 7, 3, 59))
  return {
    albedo: scale(blend(blend(red, [0.16, 0.1, 0.085], 0.5 * worn), [0.8, 0.82, 0.85], rime), 0.3 + 0.7 * gap),
    roughness: 0.75,
    reflectance: 0.03,
  }
}

const trim: Material = ([x, y, z]) => {
  const tone = 0.5 + 0.2 * fractal(x * 30 + z * 30, y * 30, 3, 61)
  return { albedo: [tone, tone * 0.99, tone * 0.95], roughness: 0.6, reflectance: 0.04 }
}

const door: Material = ([x, y]) => {
  const board = Math.floor(x / 0.16)
  const gap = smoothstep(0.5, 0.45, Math.abs(x / 0.16 - board - 0.5))
  const tone = (0.6 + 0.6 * fractal(x * 40, y * 3, 4, 63)) * (0.4 + 0.6 * gap)
  return { albedo: scale([0.07, 0.085, 0.08], tone), roughness: 0.6, reflectance: 0.03 }
}

const iron: Material = () => ({ albedo: [0.02, 0.021, 0.023], roughness: 0.5, reflectance: 0.05 })

/** A warm room behind the panes, a curtain at one side. */
const litPane: Material = ([x, y]) => {
  const curtain = smoothstep(0.1, 0.3, Math.abs(x - 0.72) + 0.05 * Math.sin(x * 60))
  const level = 0.72 * (0.75 + 0.5 * fractal(x * 4, y * 4, 2, 65)) * (1 - 0.35 * curtain)
  return { albedo: [0.01, 0.01, 0.01], roughness: 0.05, reflectance: 0.04, emission: scale([1, 0.6, 0.25], level) }
}

/** What lies under both sides of the gable, between a lowest and highest offset of its planes. */
function gable(low: number, high: number, least: Vector, most: Vector, side: -1 | 0 | 1, material: Material): Shape {
  const slopeOf = (sign: number): Vector => normalise([sign * PITCH, 1, 0])
  const over = (sign: number, height: number): number => {
    const n = slopeOf(sign)
    return n[0] * (sign < 0 ? LEFT : RIGHT) + n[1] * (EAVES + height)
  }
  const sides = side === 0 ? [-1, 1] : [side]
  const halfSpaces = [
    ...sides.map((sign) => ({ normal: slopeOf(sign), offset: over(sign, high) })),
    ...(side === 0 ? [] : [{ normal: scale(slopeOf(side), -1), offset: -over(side, low) }]),
    ...[0, 1, 2].flatMap((axis) => [
      { normal: [+(axis === 0), +(axis === 1), +(axis === 2)] as Vector, offset: most[axis] ?? 0 },
      { normal: [-(axis === 0), -(axis === 1), -(axis === 2)] as Vector, offset: -(least[axis] ?? 0) },
    ]),
  ]
  return convex(halfSpaces, { least, most }, material)
}

function roof(): Shape[] {
  const ridge = EAVES + (PITCH * (RIGHT - LEFT)) / 2
  const sides: readonly (-1 | 1)[] = [-1, 1]
  return sides.flatMap((side) => {
    const [inner, outer] = [MIDDLE, side < 0 ? LEFT - 0.34 : RIGHT + 0.34]
    const [from, to] = [Math.min(inner, outer), Math.max(inner, outer)]
    return [
      gable(0, 0.07, [from, GROUND, FRONT - 0.4], [to, ridge + 0.2, BACK + 0.3], side, trim),
      // The snow on it in three sheets, each a little smaller, so that its edge is soft.
      ...[0.14, 0.22, 0.27].map((thick, i) => {
        const inset = 0.035 * i * i
        const least: Vector = [side < 0 ? from + inset : from - 0.02, GROUND, FRONT - 0.36 + inset]
        return gable(0.07, 0.07 + thick, least, [side > 0 ? to - inset : to + 0.02, ridge + 0.6, BACK + 0.26 - inset], side, snow)
      }),
    ]
  })
}

export const WINDOW: Vector = [0.72, EAVES - 0.78, FRONT]

function window(): Shape[] {
  const [x, y, z] = WINDOW
  const bar = (least: readonly [number, number], most: readonly [number, number], proud: number): Shape =>
    box([x + least[0], y + least[1], z - proud], [x + most[0], y + most[1], z + 0.03], trim)
  return [
    box([x - 0.4, y - 0.45, z - 0.008], [x + 0.4, y + 0.45, z + 0.02], litPane),
    bar([-0.47, -0.52], [-0.4, 0.52], 0.05),
    bar([0.4, -0.52], [0.47, 0.52], 0.05),
    bar([-0.4, 0.45], [0.4, 0.52], 0.05),
    bar([-0.5, -0.54], [0.5, -0.45], 0.09),
    bar([-0.022, -0.45], [0.022, 0.45], 0.03),
    bar([-0.4, -0.02], [0.4, 0.02], 0.03),
    capsule([x - 0.42, y - 0.42, z - 0.06], [x + 0.42, y - 0.43, z - 0.055], 0.042, snow),
  ]
}

export function hut(): Shape[] {
  const ridge = EAVES + (PITCH * (RIGHT - LEFT)) / 2
  const doorway = box([-1.2, GROUND, FRONT - 0.03], [-0.3, GROUND + 2.1, FRONT + 0.02], door)
  const post = (x: number): Shape => box([x - 0.05, GROUND, FRONT - 0.045], [x + 0.05, EAVES + 0.02, FRONT + 0.02], trim)
  return [
    gable(0, 0, [LEFT, GROUND - 1, FRONT], [RIGHT, ridge + 0.1, BACK], 0, boards),
    ...roof(),
    doorway,
    box([-1.28, GROUND, FRONT - 0.05], [-1.2, GROUND + 2.17, FRONT], trim),
    box([-0.3, GROUND, FRONT - 0.05], [-0.22, GROUND + 2.17, FRONT], trim),
    box([-1.28, GROUND + 2.1, FRONT - 0.055], [-0.22, GROUND + 2.19, FRONT], trim),
    sphere([-0.4, GROUND + 1.1, FRONT - 0.06], 0.03, iron),
    post(LEFT + 0.03),
    post(RIGHT - 0.03),
    ...window(),
    // Stovepipe with a hat, and the mast of the instruments with its stays.
    capsule([0.85, EAVES + 0.3, 15.6], [0.85, ridge + 0.75, 15.6], 0.075, iron),
    capsule([0.85, ridge + 0.86, 15.6], [0.85, ridge + 0.87, 15.6], 0.14, iron),
    sphere([0.85, ridge + 0.93, 15.6], 0.13, snow),
    capsule([RIGHT + 1.5, GROUND - 0.2, 15.4], [RIGHT + 1.5, ridge + 1.6, 15.4], 0.032, iron),
    capsule([RIGHT + 1.2, ridge + 1.3, 15.4], [RIGHT + 1.8, ridge + 1.3, 15.4], 0.014, iron),
    ...[-0.3, 0.3].map((dx) => sphere([RIGHT + 1.5 + dx, ridge + 1.36, 15.4], 0.06, iron)),
    ...[
      [RIGHT + 0.2, 14.2],
      [RIGHT + 3.4, 14.6],
      [RIGHT + 2.2, 17.4],
    ].map(([x = 0, z = 0]) => capsule([x, snowHeight(x, z), z], [RIGHT + 1.5, ridge + 1.05, 15.4], 0.006, iron)),
    // A pair of skis against the wall, a shovel by the door.
    capsule([-1.55, GROUND + 0.15, FRONT - 0.35], [-1.5, GROUND + 2.0, FRONT - 0.06], 0.032, door),
    capsule([-1.66, GROUND + 0.15, FRONT - 0.33], [-1.62, GROUND + 2.0, FRONT - 0.06], 0.032, door),
    capsule([0.0, GROUND + 0.3, FRONT - 0.3], [-0.06, GROUND + 1.35, FRONT - 0.08], 0.018, door),
  ]
}
