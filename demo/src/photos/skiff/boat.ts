import { fractal, hash, mixNumbers, noise, smoothstep } from '../../tracer/noise'
import { box, capsule, implicit, sphere, type Material, type Shape } from '../../tracer/shapes'
import { blend, scale, type Vector } from '../../tracer/vector'

// An open wooden skiff with its sail furled along the mast. It is built about its own middle, bow towards +x, and put on the water turned.

const LENGTH = 4.6
const HALF_BEAM = 0.82
const TURN = -0.5
const [COS, SIN] = [Math.cos(TURN), Math.sin(TURN)]
const MIDDLE: Vector = [1.35, 0.02, 9.2]

/** From the boat to the world. */
function afloat([x, y, z]: Vector): Vector {
  return [MIDDLE[0] + COS * x + SIN * z, MIDDLE[1] + y, MIDDLE[2] - SIN * x + COS * z]
}

function aboard([x, y, z]: Vector): Vector {
  const [dx, dz] = [x - MIDDLE[0], z - MIDDLE[2]]
  return [COS * dx - SIN * dz, y - MIDDLE[1], SIN * dx + COS * dz]
}

function sheer(x: number): number {
  const t = x / (LENGTH / 2)
  return 0.44 + 0.05 * t + 0.15 * t * t
}

function keel(x: number): number {
  const t = x / (LENGTH / 2)
  return -0.17 + 0.42 * Math.max(0, t) ** 6 + 0.1 * Math.max(0, -t) ** 3
}

/** Half the width of the hull at a height. */
function halfWidth(x: number, y: number): number {
  const t = x / (LENGTH / 2)
  const plan = t > -0.1 ? 1 - Math.abs((t + 0.1) / 1.1) ** 2.3 : 1 - 0.3 * Math.abs((t + 0.1) / 0.9) ** 2
  const [low, high] = [keel(x), sheer(x)]
  const up = Math.min(1, Math.max(0, (y - low) / (high - low)))
  return Math.max(0, HALF_BEAM * Math.max(0, plan) * up ** 0.42)
}

function hull(place: Vector): number {
  const [x, y, z] = aboard(place)
  const half = LENGTH / 2
  const ends = Math.max(-half - x, x - half)
  const width = halfWidth(Math.min(half, Math.max(-half, x)), y)
  // Clinker planks: each strake stands a little proud of the next.
  const up = (y - keel(x)) / (sheer(x) - keel(x))
  const lap = 0.012 * (up * 7 - Math.floor(up * 7))
  const outside = Math.max(Math.abs(z) - width - lap, y - sheer(x), keel(x) - y, ends)
  const inside = Math.max(Math.abs(z) - width + 0.028, keel(x) + 0.05 - y, -half + 0.04 - x)
  // A wide angle to the axis makes the true distance smaller than these.
  return 0.5 * Math.max(outside, -inside)
}

const paint: Material = (place) => {
  const [x, y, z] = aboard(place)
  const inside = Math.abs(z) < halfWidth(x, y) - 0.012
  const worn = smoothstep(0.5, 0.72, fractal(x * 3, y * 14, 5, 211))
  const grain = fractal(x * 4, y * 60 + z * 20, 4, 213)
  const bare: Vector = scale([0.2, 0.15, 0.1], 0.5 + grain)
  if (inside) return { albedo: scale(bare, 1.1), roughness: 0.6, reflectance: 0.03 }
  const rail = smoothstep(0.055, 0.045, sheer(x) - y)
  const weed = smoothstep(0.07, 0.0, y + 0.03 * noise(x * 9, 1, 5))
  const white: Vector = [0.62, 0.63, 0.6]
  const top = blend(blend(white, [0.05, 0.16, 0.17], rail), bare, 0.55 * worn)
  return { albedo: blend(top, [0.03, 0.035, 0.02], 0.85 * weed), roughness: 0.42, reflectance: 0.04 }
}

const spar: Material = ([x, y, z]) => {
  const grain = fractal(x * 30 + z * 30, y * 3, 4, 221)
  return { albedo: scale([0.3, 0.2, 0.11], 0.45 + 0.9 * grain), roughness: 0.4, reflectance: 0.04 }
}

const canvas: Material = ([x, y, z], normal) => {
  const fold = fractal(x * 26 + z * 26, y * 5, 4, 223)
  return {
    albedo: scale([0.42, 0.26, 0.19], 0.55 + 0.7 * fold),
    roughness: 0.9,
    reflectance: 0.02,
    normal: blend(normal, [fold - 0.5, 0.2, noise(y * 6, x * 30, 3) - 0.5], 0.4),
  }
}

const hemp: Material = ([x, y, z]) => ({
  albedo: scale([0.2, 0.16, 0.1], 0.6 + 0.4 * Math.sin(120 * (x + y + z))),
  roughness: 0.9,
  reflectance: 0.02,
})

/** A slack line between two places of the world. */
function slackLine(from: Vector, to: Vector, sag: number, radius: number): Shape[] {
  const count = 20
  const at = (i: number): Vector => {
    const t = i / count
    return [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) - sag * 4 * t * (1 - t), mixNumbers(from[2], to[2], t)]
  }
  return Array.from({ length: count }, (_, i) => capsule(at(i), at(i + 1), radius, hemp))
}

function rig(): Shape[] {
  const [foot, top] = [afloat([0.55, -0.1, 0]), afloat([0.42, 4.3, 0.06])]
  const furled = Array.from({ length: 15 }, (_, i) => {
    const at = (k: number): Vector => afloat([0.45 - 0.014 * k, 0.85 + 0.2 * k, 0.05 + 0.02 * Math.sin(k * 1.9)])
    return capsule(at(i), at(i + 1), 0.085 - 0.0026 * i + 0.014 * hash(i, 4, 9), canvas)
  })
  const lashings = [1, 4, 7, 10, 13].map((k) => {
    const [x, y, z] = [0.45 - 0.014 * k, 0.9 + 0.2 * k, 0.05]
    return capsule(afloat([x, y, z - 0.012]), afloat([x, y + 0.012, z + 0.012]), 0.088 - 0.0026 * k, hemp)
  })
  return [
    capsule(foot, top, 0.042, spar),
    sphere(top, 0.055, spar),
    ...furled,
    ...lashings,
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([2.16, 0.6, 0]), 0.03, 0.0055),
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([0.3, 0.5, 0.78]), 0.02, 0.0055),
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([0.3, 0.5, -0.78]), 0.02, 0.0055),
    // A pair of oars laid along the thwarts.
    capsule(afloat([-1.5, 0.43, 0.24]), afloat([1.1, 0.47, 0.16]), 0.022, spar),
    capsule(afloat([-1.45, 0.43, 0.33]), afloat([1.15, 0.47, 0.27]), 0.022, spar),
  ]
}

/** A bench across the hull. */
function thwart(x: number): Shape {
  const width = halfWidth(x, 0.34) - 0.03
  const plank = (place: Vector): number => {
    const [px, py, pz] = aboard(place)
    return 0.8 * Math.max(Math.abs(px - x) - 0.11, Math.abs(py - 0.34) - 0.017, Math.abs(pz) - width)
  }
  const [cx, cy, cz] = afloat([x, 0.34, 0])
  return implicit(plank, { least: [cx - 1, cy - 0.03, cz - 1], most: [cx + 1, cy + 0.03, cz + 1] }, spar)
}

/** The skiff, its mooring post ashore, and the line between them. */
export function skiff(): Shape[] {
  const reach = LENGTH / 2 + 0.1
  const post: Vector = [-3.05, 0, 5.1]
  const bounds = {
    least: [MIDDLE[0] - reach, -0.25, MIDDLE[2] - reach] as Vector,
    most: [MIDDLE[0] + reach, 0.75, MIDDLE[2] + reach] as Vector,
  }
  return [
    implicit(hull, bounds, paint),
    ...rig(),
    ...[-1.35, -0.35, 0.75].map(thwart),
    capsule([post[0], -0.3, post[2]], [post[0] + 0.03, 0.92, post[2]], 0.085, spar),
    box([post[0] - 0.02, 0.5, post[2] - 0.14], [post[0] + 0.03, 0.53, post[2] + 0.14], spar),
    ...slackLine([post[0] + 0.06, 0.72, post[2]], afloat([-2.2, 0.5, 0]), 0.24, 0.012),
    ...slackLine([post[0] + 0.06, 0.7, post[2]], [post[0] - 2.4, 0.03, post[2] - 1.7], 0.1, 0.012),
  ]
}
