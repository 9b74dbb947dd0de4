import { fractal, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import { implicit, type Material, type Shape } from '../../tracer/shapes'
import { add, blend, scale, type Vector } from '../../tracer/vector'

// A ship's lantern of brass, with a glass globe in a cage. Decimetres, y up from the table.

const LANTERN: Vector = [0.95, 0, 0.2]

/** A round body: half its width `radius`, from `low` to `high`, its edges rounded. */
function drum(r: number, y: number, radius: number, low: number, high: number, round: number): number {
  const dr = r - radius + round
  const dy = Math.abs(y - (low + high) / 2) - (high - low) / 2 + round
  return Math.min(Math.max(dr, dy), 0) + Math.hypot(Math.max(dr, 0), Math.max(dy, 0)) - round
}

function hoop(r: number, y: number, radius: number, height: number, thick: number): number {
  return Math.hypot(r - radius, y - height) - thick
}

/** A round body that narrows from `wide` at `low` to `narrow` at `high`. */
function cone(r: number, y: number, wide: number, narrow: number, low: number, high: number): number {
  const t = Math.min(1, Math.max(0, (y - low) / (high - low)))
  const side = (r - mixNumbers(wide, narrow, t)) * 0.86
  return Math.max(side, low - y, y - high)
}

function ring(x: number, y: number, z: number): number {
  // The handle has fallen to one side.
  const lean = 0.32
  const [a, b] = [Math.cos(lean), Math.sin(lean)]
  const up = y - 3.5
  const along = a * up - b * z
  const aside = b * up + a * z
  return Math.hypot(Math.hypot(x, along - 0.44) - 0.46, aside) - 0.042
}

function body(place: Vector): number {
  const [x, y, z] = [place[0] - LANTERN[0], place[1], place[2] - LANTERN[2]]
  const r = Math.hypot(x, z)
  const turned = Math.atan2(z, x)
  const step = Math.PI / 2
  const rod = Math.hypot(
    r * Math.cos(turned - step * Math.round((turned - 0.5) / step) - 0.5) - 0.83,
    r * Math.sin(turned - step * Math.round((turned - 0.5) / step) - 0.5),
  )
  const rods = Math.max(rod - 0.034, 0.7 - y, y - 2.72)
  return Math.min(
    drum(r, y, 1.08, 0, 0.14, 0.05),
    drum(r, y, 0.92, 0.12, 0.66, 0.1),
    hoop(r, y, 0.92, 0.4, 0.03),
    drum(r, y, 0.95, 0.66, 0.76, 0.03),
    drum(r, y, 0.56, 0.74, 0.94, 0.03),
    drum(r, y, 0.18, 0.9, 1.16, 0.02),
    hoop(r, y, 0.85, 1.32, 0.032),
    hoop(r, y, 0.85, 2.08, 0.032),
    rods,
    drum(r, y, 0.95, 2.66, 2.76, 0.03),
    cone(r, y, 0.86, 0.4, 2.74, 3.12),
    drum(r, y, 0.5, 3.1, 3.24, 0.03),
    Math.hypot(r, y - 3.2) - 0.32,
    drum(r, y, 0.09, 3.4, 3.58, 0.02),
    ring(x, y, z),
  )
}

const brass: Material = (place, normal) => {
  const [x, y, z] = [place[0] - LANTERN[0], place[1], place[2] - LANTERN[2]]
  const turned = Math.atan2(z, x) * 2
  const tarnish = smoothstep(0.48, 0.72, fractal(turned * 1.3 + 7, y * 2.2, 5, 931)) * 0.75
  const scratch = fractal(turned * 2, y * 40, 3, 933)
  const dent = fractal(turned * 2.6, y * 5, 3, 935) - 0.5
  const bump: Vector = [noise(turned * 9, y * 9, 3) - 0.5, (scratch - 0.5) * 0.7, noise(turned * 9, y * 9, 5) - 0.5]
  return {
    albedo: scale([0.11, 0.065, 0.03], 0.4 + tarnish),
    roughness: 0.2 + 0.22 * tarnish + 0.08 * scratch,
    reflectance: 0.82 - 0.4 * tarnish,
    shine: blend([1, 0.79, 0.46], [0.8, 0.55, 0.3], tarnish),
    normal: add(normal, scale(bump, 0.05 + 0.06 * Math.abs(dent))),
  }
}

function globe(place: Vector): number {
  const [x, y, z] = [place[0] - LANTERN[0], place[1], place[2] - LANTERN[2]]
  const r = Math.hypot(x, z)
  const t = (y - 1.78) / 0.86
  const radius = 0.5 + 0.2 * Math.sqrt(Math.max(0, 1 - t * t))
  return Math.max((Math.abs(r - radius) - 0.012) * 0.8, 0.92 - y, y - 2.66)
}

const glass: Material = ([x, y, z], normal) => {
  const smear = fractal(x * 3, y * 3 + z, 4, 941) - 0.5
  return {
    albedo: [0, 0, 0],
    roughness: 0,
    reflectance: 0.045,
    clear: [0.955, 0.97, 0.962],
    normal: add(normal, [smear * 0.06, smear * 0.04, 0]),
  }
}

export function lantern(): Shape[] {
  const [x, , z] = LANTERN
  return [
    implicit(body, { least: [x - 1.2, 0, z - 1.2], most: [x + 1.2, 4.6, z + 1.2] }, brass),
    implicit(globe, { least: [x - 0.8, 0.9, z - 0.8], most: [x + 0.8, 2.7, z + 0.8] }, glass),
  ]
}
