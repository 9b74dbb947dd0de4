import { fractal, hash, smoothstep } from '../../tracer/noise'
import { box, capsule, sphere, terrain, type Material, type Shape } from '../../tracer/shapes'
import { blend, normalise, type Vector } from '../../tracer/vector'
import { timber } from './trestle'

// The headland that closes the bay at the left, with the signal mast of the pilots on its top.

const LEAST: Vector = [-110, -0.5, 56]
const MOST: Vector = [-6, 26, 170]

/** Height of the ground in metres; below 0 it is under water. */
function headlandHeight(x: number, z: number): number {
  const inland = smoothstep(-8, -46, x + 0.12 * (z - 90))
  const face = smoothstep(56, 74, z + 5 * fractal(x * 0.08, 2, 3, 61)) * smoothstep(170, 120, z)
  const rough = 2.1 * (fractal(x * 0.16, z * 0.16, 5, 63) - 0.5) + 0.7 * (fractal(x * 0.9, z * 0.9, 4, 65) - 0.5)
  const steps = 0.9 * Math.sin(7 * fractal(x * 0.05, z * 0.05, 3, 67))
  return (17 * inland ** 0.8 + steps * inland + rough) * face - 1 + 1.2 * face
}

const turf: Material = ([x, y, z], normal) => {
  const slope = smoothstep(0.86, 0.62, normal[1])
  const tuft = fractal(x * 1.4, z * 1.4, 5, 71)
  const grass: Vector = [0.045 + 0.05 * tuft, 0.05 + 0.04 * tuft, 0.02]
  const bed = Math.floor((y + 0.4 * fractal(x * 0.3, z * 0.3, 3, 72)) / 0.5)
  const tone = (0.055 + 0.05 * hash(bed, 3, 73)) * (0.6 + 0.8 * fractal(x * 2, y * 5 + z, 4, 74))
  const damp = smoothstep(1.4, 0.2, y)
  return {
    albedo: blend(blend(grass, [tone * 1.05, tone, tone * 0.92], slope), [0.014, 0.014, 0.013], damp),
    roughness: 0.85 - 0.4 * damp,
    reflectance: 0.03,
  }
}

const PLASTER: Vector = [0.34, 0.33, 0.31]
const plaster: Material = ([x, y, z]) => {
  const stain = 0.75 + 0.4 * fractal(x * 2, y * 1.2 + z, 4, 81)
  return { albedo: [PLASTER[0] * stain, PLASTER[1] * stain, PLASTER[2] * stain], roughness: 0.8, reflectance: 0.03 }
}

export function headland(): Shape[] {
  return [terrain(headlandHeight, LEAST, MOST, 0.45, turf), ...signalMast(-34, 84), ...keepersHut(-41.5, 88)]
}

function signalMast(x: number, z: number): Shape[] {
  const foot = headlandHeight(x, z) - 0.4
  const top = foot + 14.5
  const stays = [
    [-5, -3],
    [5, -2.5],
    [4.2, 4],
    [-4, 4],
  ].map(([dx = 0, dz = 0]) => capsule([x, foot + 9.4, z], [x + dx, headlandHeight(x + dx, z + dz), z + dz], 0.035, timber))
  return [
    capsule([x, foot, z], [x, foot + 9.6, z], 0.2, timber),
    capsule([x + 0.14, foot + 8.2, z], [x + 0.14, top, z], 0.12, timber),
    // The yard, the gaff, and what they carry: two balls and a cone of lattice for the pilots.
    capsule([x - 3.3, foot + 9.3, z], [x + 3.3, foot + 9.3, z], 0.1, timber),
    capsule([x + 0.1, foot + 8.6, z], [x + 3.4, foot + 12, z], 0.07, timber),
    ...[-2.7, -1.4].map((dx) => sphere([x + dx, foot + 8.1, z], 0.48, timber)),
    ...[-2.7, -1.4, 2.6].map((dx) => capsule([x + dx, foot + 9.3, z], [x + dx, foot + (dx > 0 ? 6.2 : 8.5), z], 0.022, timber)),
    box([x + 2.2, foot + 5.6, z - 0.02], [x + 3.9, foot + 6.7, z + 0.02], timber),
    capsule([x - 3.2, foot + 9.3, z], [x + 0.14, top - 0.4, z], 0.022, timber),
    capsule([x + 3.2, foot + 9.3, z], [x + 0.14, top - 0.4, z], 0.022, timber),
    box([x - 0.6, foot + 4.3, z - 0.6], [x + 0.6, foot + 4.42, z + 0.6], timber),
    ...stays,
  ]
}

function keepersHut(x: number, z: number): Shape[] {
  const foot = headlandHeight(x, z) - 1.2
  return [
    box([x - 2.6, foot, z - 1.9], [x + 2.6, foot + 3.8, z + 1.9], plaster),
    ...[0, 1, 2, 3, 4].map((i) =>
      box([x - 2.9, foot + 3.8 + 0.3 * i, z - 2.1 + 0.4 * i], [x + 2.9, foot + 4.1 + 0.3 * i, z + 2.1 - 0.4 * i], timber),
    ),
    box([x + 1.2, foot + 4.2, z - 0.4], [x + 1.9, foot + 6.1, z + 0.3], plaster),
  ]
}

/** Angular rocks that lie in a lattice of cells, some of them empty; negative where there is none. */
function rockHeight(x: number, z: number, cell: number, share: number): number {
  const [i, j] = [Math.floor(x / cell), Math.floor(z / cell)]
  const warpX = x + 0.22 * cell * (fractal(x * (2.4 / cell), z * (2.4 / cell), 3, 87) - 0.5)
  const warpZ = z + 0.22 * cell * (fractal(x * (2.4 / cell) + 9, z * (2.4 / cell), 3, 88) - 0.5)
  let height = -0.3
  for (let a = i - 1; a <= i + 1; a++) {
    for (let b = j - 1; b <= j + 1; b++) {
      if (hash(a, b, 5) > share) continue
      const size = cell * (0.16 + 0.34 * hash(a, b, 6) ** 2)
      const turn = Math.PI * hash(a, b, 9)
      const dx = warpX - (a + 0.2 + 0.6 * hash(a, b, 7)) * cell
      const dz = warpZ - (b + 0.2 + 0.6 * hash(a, b, 8)) * cell
      const u = (dx * Math.cos(turn) + dz * Math.sin(turn)) / size
      const v = (dz * Math.cos(turn) - dx * Math.sin(turn)) / (0.66 * size)
      // Flat-topped with a dip to one side, as beds of stone break.
      const top = size * (0.62 + 0.22 * u - 0.16 * v)
      height = Math.max(height, Math.min(top, 1.7 * size * (1 - Math.max(Math.abs(u), Math.abs(v), 0.72 * (Math.abs(u) + Math.abs(v))))))
    }
  }
  return height + (height > -0.2 ? 0.05 * cell * (fractal((x * 9) / cell, (z * 9) / cell, 4, 89) - 0.5) : 0)
}

/** Rocks on the sand and at the foot of the headland. */
export function rocks(): Shape[] {
  return [
    terrain(
      (x, z) => rockHeight(x, z, 2.1, 0.34 * smoothstep(0.4, 0.55, fractal(x * 0.16, z * 0.16, 2, 90))),
      [-14, 0, 4.2],
      [14, 1, 15],
      0.03,
      rock,
    ),
    terrain((x, z) => rockHeight(x, z, 5, 0.7), [-40, 0, 42], [-4, 2.4, 64], 0.12, rock),
  ]
}

const rock: Material = ([x, y, z], normal) => {
  const step = 0.012
  const height = (a: number, b: number): number => 0.02 * fractal(a * 9, b * 9, 5, 83)
  const here = height(x, z)
  const weed = smoothstep(0.26, 0.08, y) * smoothstep(0.4, 0.6, fractal(x * 3, z * 3, 3, 84))
  const tone = 0.034 + 0.03 * fractal(x * 5, z * 5 + y, 4, 85)
  return {
    albedo: blend([tone * 1.04, tone, tone * 0.94], [0.02, 0.025, 0.008], weed),
    roughness: 0.36,
    reflectance: 0.035,
    normal: normalise([normal[0] - (height(x + step, z) - here) / step, normal[1], normal[2] - (height(x, z + step) - here) / step]),
  }
}
