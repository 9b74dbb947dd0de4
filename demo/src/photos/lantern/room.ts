import { fractal, hash, noise, smoothstep } from '../../tracer/noise'
import { box, capsule, implicit, type Material, type Shape } from '../../tracer/shapes'
import { add, blend, scale, type Vector } from '../../tracer/vector'

// The table, what lies on it, and the window behind.

const WALL_AT = 7
/** The opening of the window: left, right, low, high. */
const [LEFT, RIGHT, LOW, HIGH] = [-5.2, 0.6, 0.9, 8.5] as const

const planks: Material = ([x, y, z], normal) => {
  const board = Math.floor((z + 40) / 1.35)
  const across = (z + 40) / 1.35 - board
  const shift = 11 * hash(board, 3)
  const grain = fractal((x + shift) * 0.55, z * 9 + 2 * fractal(x * 0.3 + shift, z * 2, 3, 951), 5, 953)
  const ring = 0.5 + 0.5 * Math.sin(26 * (grain + 0.25 * across))
  const seam = smoothstep(0.025, 0.008, Math.min(across, 1 - across))
  const worn = fractal(x * 0.8, z * 0.8, 4, 957)
  const wood = scale(blend([0.19, 0.1, 0.05], [0.09, 0.042, 0.02], 0.35 * ring + 0.5 * grain), 0.75 + 0.5 * hash(board, 9))
  return {
    albedo: scale(wood, 1 - 0.85 * seam),
    roughness: 0.2 + 0.25 * worn + 0.1 * grain,
    reflectance: 0.04,
    normal: add(normal, [
      0.02 * (grain - 0.5),
      0,
      0.1 * (grain - 0.5) + 0.3 * seam * (across < 0.5 ? 1 : -1) + 0.03 * (noise(x * 30, y + z * 30, 4) - 0.5),
    ]),
  }
}

const plaster: Material = ([x, y], normal) => ({
  albedo: scale([0.34, 0.35, 0.33], 0.8 + 0.3 * fractal(x * 0.7, y * 0.7, 5, 961)),
  roughness: 0.9,
  reflectance: 0.03,
  normal: add(normal, [0.1 * (fractal(x * 3, y * 3, 3, 963) - 0.5), 0, 0]),
})

const whitePaint: Material = ([x, y, z]) => ({
  albedo: scale([0.55, 0.54, 0.5], 0.75 + 0.4 * fractal(x * 2 + z, y * 2, 4, 965)),
  roughness: 0.4,
  reflectance: 0.04,
})

/** A chart: paper with a coastline, soundings and a grid. */
const chart: Material = ([x, , z], normal) => {
  const [a, b] = [x * 0.94 + z * 0.34, z * 0.94 - x * 0.34]
  const coast = fractal(a * 0.9 + 4, b * 0.9, 5, 971)
  const line =
    smoothstep(0.012, 0.004, Math.abs(coast - 0.5)) +
    0.5 * smoothstep(0.006, 0.002, Math.abs(coast - 0.43)) +
    0.35 * smoothstep(0.006, 0.002, Math.abs(coast - 0.37))
  const grid = Math.min(Math.abs(a * 1.3 - Math.round(a * 1.3)), Math.abs(b * 1.3 - Math.round(b * 1.3)))
  const ruled = 0.45 * smoothstep(0.009, 0.004, grid)
  const [cell, row] = [Math.floor(a * 6), Math.floor(b * 7)]
  const figure =
    coast < 0.5 && hash(cell, row, 5) > 0.72
      ? smoothstep(0.1, 0.05, Math.hypot((a * 6 - cell - 0.5) * 0.6, b * 7 - row - 0.5) - 0.08 * noise(a * 60, b * 60, 8))
      : 0
  const land = coast > 0.5 ? 0.6 : 0
  const paper = blend(blend([0.66, 0.6, 0.47], [0.62, 0.5, 0.28], land), [0.5, 0.4, 0.25], smoothstep(0.55, 0.85, fractal(a, b, 4, 977)))
  return {
    albedo: scale(paper, 1 - 0.8 * Math.min(1, line + ruled + 0.7 * figure)),
    roughness: 0.8,
    reflectance: 0.03,
    normal: add(normal, [0.14 * (fractal(a * 0.8, b * 0.8, 3, 979) - 0.5), 0, 0.14 * (fractal(a * 0.8, b * 0.8, 3, 983) - 0.5)]),
  }
}

const hemp: Material = ([x, y, z], normal) => {
  const [u, v] = [x + 2.35, z + 1.2]
  const twist = Math.sin(52 * Math.atan2(v, u) + 60 * y + 24 * Math.hypot(u, v))
  return {
    albedo: scale([0.36, 0.27, 0.15], 0.55 + 0.3 * twist + 0.4 * noise(x * 40, z * 40 + y * 30, 6)),
    roughness: 0.9,
    reflectance: 0.02,
    normal: add(normal, [0.35 * twist * normal[2], 0.2 * twist, -0.35 * twist * normal[0]]),
  }
}

/** A coil of rope: rounds on rounds, none quite level. */
function coil([x, y, z]: Vector): number {
  const [u, v] = [x + 2.35, z + 1.2]
  const turned = Math.atan2(v, u)
  const r = Math.hypot(u, v)
  let nearest = Infinity
  for (const [radius, height] of [
    [0.92, 0.13],
    [0.68, 0.12],
    [0.8, 0.34],
    [0.58, 0.33],
    [0.72, 0.53],
  ] as const) {
    const wave = 0.03 * Math.sin(3 * turned + radius * 20)
    nearest = Math.min(nearest, Math.hypot(r - radius - wave, y - height - 0.02 * Math.cos(2 * turned + radius * 9)) - 0.125)
  }
  return 0.8 * nearest
}

const brassPin: Material = () => ({ albedo: [0.08, 0.05, 0.02], roughness: 0.25, reflectance: 0.75, shine: [1, 0.8, 0.5] })
const lacquer: Material = ([x]) => ({ albedo: x > 3.05 ? [0.5, 0.36, 0.2] : [0.25, 0.03, 0.02], roughness: 0.3, reflectance: 0.04 })

function mullion(least: Vector, most: Vector): Shape {
  return box(least, most, whitePaint)
}

export function room(): Shape[] {
  const [z, behind] = [WALL_AT, WALL_AT + 0.5]
  const middle = (LEFT + RIGHT) / 2
  return [
    box([-14, -0.4, -5.6], [14, 0, 3.4], planks),
    box([-16, -0.9, 3.4], [16, -0.4, 7], planks),
    box([-18, -4, z], [LEFT, 14, behind], plaster),
    box([RIGHT, -4, z], [18, 14, behind], plaster),
    box([LEFT, -4, z], [RIGHT, LOW, behind], plaster),
    box([LEFT, HIGH, z], [RIGHT, 14, behind], plaster),
    box([LEFT - 0.4, LOW - 0.25, z - 0.55], [RIGHT + 0.4, LOW, z + 0.1], whitePaint),
    mullion([LEFT, LOW, z + 0.05], [LEFT + 0.25, HIGH, z + 0.3]),
    mullion([RIGHT - 0.25, LOW, z + 0.05], [RIGHT, HIGH, z + 0.3]),
    mullion([middle - 0.12, LOW, z + 0.05], [middle + 0.12, HIGH, z + 0.3]),
    mullion([LEFT, 3.3, z + 0.08], [RIGHT, 3.45, z + 0.28]),
    mullion([LEFT, 5.9, z + 0.08], [RIGHT, 6.05, z + 0.28]),
    box([-1.6, 0, -3.2], [5.2, 0.012, 1.4], chart),
    implicit(coil, { least: [-3.5, 0, -2.4], most: [-1.2, 0.75, 0] }, hemp),
    capsule([2.35, 0.085, -2.1], [3.3, 0.085, -1.65], 0.07, lacquer),
    capsule([-0.6, 0.06, -2.5], [-0.2, 0.06, -2.75], 0.05, brassPin),
  ]
}
