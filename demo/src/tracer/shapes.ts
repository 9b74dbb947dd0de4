import { along, dot, normalise, scale, subtract, type Vector } from './vector'

/** Where a ray meets a shape. */
export interface Hit {
  readonly t: number
  readonly normal: Vector
}

export interface Box {
  readonly least: Vector
  readonly most: Vector
}

/** What a surface is made of at a place. Colours in linear light. */
export interface Surface {
  readonly albedo: Vector
  /** 0 mirror - 1 matt. */
  readonly roughness: number
  /** Reflectance straight on; 0.02 water, 0.04 stone and paint. */
  readonly reflectance: number
  readonly normal?: Vector
  readonly emission?: Vector
  /** Colour of what it mirrors; metals have one. */
  readonly shine?: Vector
  /** Thin clear glass: the part of each colour that goes straight through. */
  readonly clear?: Vector
}

export type Material = (place: Vector, normal: Vector, distance: number) => Surface

export interface Shape {
  readonly bounds: Box
  readonly material: Material
  /** The nearest hit between `near` and `far`. */
  intersect(origin: Vector, direction: Vector, near: number, far: number): Hit | undefined
}

interface HalfSpace {
  readonly normal: Vector
  readonly offset: number
}

/** What lies inside all half-spaces `normal · p <= offset`; boxes, prisms, hulls. */
export function convex(halfSpaces: readonly HalfSpace[], bounds: Box, material: Material): Shape {
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      let enter = -Infinity
      let leave = Infinity
      let normal: Vector = [0, 1, 0]
      for (const half of halfSpaces) {
        const towards = dot(half.normal, direction)
        const rest = half.offset - dot(half.normal, origin)
        if (Math.abs(towards) < 1e-12) {
          if (rest < 0) return undefined
          continue
        }
        const t = rest / towards
        if (towards < 0) {
          if (t > enter) {
            enter = t
            normal = half.normal
          }
        } else if (t < leave) leave = t
      }
      return enter < leave && enter > near && enter < far ? { t: enter, normal } : undefined
    },
  }
}

export function box(least: Vector, most: Vector, material: Material): Shape {
  const halfSpaces = [0, 1, 2].flatMap((axis) => [
    { normal: unit(axis, 1), offset: most[axis] ?? 0 },
    { normal: unit(axis, -1), offset: -(least[axis] ?? 0) },
  ])
  return convex(halfSpaces, { least, most }, material)
}

function unit(axis: number, sign: number): Vector {
  return [axis === 0 ? sign : 0, axis === 1 ? sign : 0, axis === 2 ? sign : 0]
}

/** A box whose two upright corners towards the viewer (least z) are cut off at 45 degrees. */
export function chamferedBox(least: Vector, most: Vector, cut: number, material: Material): Shape {
  const halfSpaces = [0, 1, 2].flatMap((axis) => [
    { normal: unit(axis, 1), offset: most[axis] ?? 0 },
    { normal: unit(axis, -1), offset: -(least[axis] ?? 0) },
  ])
  const left = normalise([-1, 0, -1])
  const right = normalise([1, 0, -1])
  halfSpaces.push({ normal: left, offset: dot(left, [least[0] + cut, 0, least[2]]) })
  halfSpaces.push({ normal: right, offset: dot(right, [most[0] - cut, 0, least[2]]) })
  return convex(halfSpaces, { least, most }, material)
}

export function sphere(centre: Vector, radius: number, material: Material): Shape {
  return {
    bounds: { least: subtract(centre, [radius, radius, radius]), most: subtract(centre, [-radius, -radius, -radius]) },
    material,
    intersect(origin, direction, near, far) {
      const offset = subtract(origin, centre)
      const b = dot(offset, direction)
      const d = b * b - dot(offset, offset) + radius * radius
      if (d < 0) return undefined
      const root = Math.sqrt(d)
      const t = -b - root > near ? -b - root : -b + root
      if (t <= near || t >= far) return undefined
      return { t, normal: scale(subtract(along(origin, direction, t), centre), 1 / radius) }
    },
  }
}

/** A rod with round ends between two places. */
export function capsule(from: Vector, to: Vector, radius: number, material: Material): Shape {
  const axis = subtract(to, from)
  const axisSquared = dot(axis, axis)
  const bounds: Box = {
    least: [0, 1, 2].map((i) => Math.min(from[i] ?? 0, to[i] ?? 0) - radius) as unknown as Vector,
    most: [0, 1, 2].map((i) => Math.max(from[i] ?? 0, to[i] ?? 0) + radius) as unknown as Vector,
  }
  const ends = [sphere(from, radius, material), sphere(to, radius, material)]
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      const offset = subtract(origin, from)
      const dAxis = dot(direction, axis)
      const oAxis = dot(offset, axis)
      const a = axisSquared - dAxis * dAxis
      const b = axisSquared * dot(direction, offset) - oAxis * dAxis
      const c = axisSquared * (dot(offset, offset) - radius * radius) - oAxis * oAxis
      const d = b * b - a * c
      if (a > 1e-12 && d >= 0) {
        const t = (-b - Math.sqrt(d)) / a
        const y = oAxis + t * dAxis
        if (t > near && t < far && y > 0 && y < axisSquared) {
          const place = along(origin, direction, t)
          return { t, normal: normalise(subtract(place, along(from, axis, y / axisSquared))) }
        }
      }
      let best: Hit | undefined
      for (const end of ends) best = end.intersect(origin, direction, near, best?.t ?? far) ?? best
      return best
    },
  }
}

/** A horizontal rectangle. */
export function floor(y: number, least: readonly [number, number], most: readonly [number, number], material: Material): Shape {
  return {
    bounds: { least: [least[0], y - 1e-3, least[1]], most: [most[0], y + 1e-3, most[1]] },
    material,
    intersect(origin, direction, near, far) {
      const t = (y - origin[1]) / direction[1]
      if (!(t > near && t < far)) return undefined
      const x = origin[0] + t * direction[0]
      const z = origin[2] + t * direction[2]
      const inside = x >= least[0] && x <= most[0] && z >= least[1] && z <= most[1]
      return inside ? { t, normal: [0, direction[1] < 0 ? 1 : -1, 0] } : undefined
    },
  }
}

/** Ground as a height over x and z, found by steps of at most `step` metres and then by halving. */
export function terrain(height: (x: number, z: number) => number, least: Vector, most: Vector, step: number, material: Material): Shape {
  const above = ([x, y, z]: Vector): number => y - height(x, z)
  return {
    bounds: { least, most },
    material,
    intersect(origin, direction, near, far) {
      const span = insideBox(origin, direction, least, most, near, far)
      if (!span) return undefined
      let before = span.enter
      // Far from the ground steps may be long: the ground is nowhere steeper than about 60 degrees.
      for (let t = span.enter; t < span.leave;) {
        const rest = above(along(origin, direction, t))
        if (rest < 0)
          return t === span.enter ? undefined : groundHit(height, origin, direction, bisect(above, origin, direction, before, t))
        before = t
        t += Math.max(step, 0.45 * rest)
      }
      return undefined
    },
  }
}

/**
 * A solid given by a distance: negative inside, and never more than the true distance outside. Found by steps of that distance (sphere tracing,
 * Hart 1996, from memory).
 */
export function implicit(distance: (place: Vector) => number, bounds: Box, material: Material): Shape {
  const NARROW = 6e-4
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      const span = insideBox(origin, direction, bounds.least, bounds.most, near, far)
      if (!span) return undefined
      let t = span.enter
      // A ray that starts on the surface first has to leave it.
      for (let i = 0; i < 200 && t < span.leave; i++) {
        const place = along(origin, direction, t)
        const rest = distance(place)
        if (rest < NARROW && t > near + 0.004) return { t, normal: gradient(distance, place) }
        t += Math.max(Math.abs(rest), NARROW)
      }
      return undefined
    },
  }
}

function gradient(distance: (place: Vector) => number, [x, y, z]: Vector): Vector {
  const e = 1e-3
  return normalise([
    distance([x + e, y, z]) - distance([x - e, y, z]),
    distance([x, y + e, z]) - distance([x, y - e, z]),
    distance([x, y, z + e]) - distance([x, y, z - e]),
  ])
}

function insideBox(
  origin: Vector,
  direction: Vector,
  least: Vector,
  most: Vector,
  near: number,
  far: number,
): { enter: number; leave: number } | undefined {
  let [enter, leave] = [near, far]
  for (const axis of [0, 1, 2] as const) {
    const a = (least[axis] - origin[axis]) / direction[axis]
    const b = (most[axis] - origin[axis]) / direction[axis]
    enter = Math.max(enter, Math.min(a, b))
    leave = Math.min(leave, Math.max(a, b))
  }
  return enter < leave ? { enter, leave } : undefined
}

function bisect(above: (place: Vector) => number, origin: Vector, direction: Vector, from: number, to: number): number {
  let [a, b] = [from, to]
  for (let i = 0; i < 14; i++) {
    const middle = (a + b) / 2
    if (above(along(origin, direction, middle)) > 0) a = middle
    else b = middle
  }
  return a
}

function groundHit(height: (x: number, z: number) => number, origin: Vector, direction: Vector, t: number): Hit {
  const [x, , z] = along(origin, direction, t)
  const reach = 0.05 + 0.0008 * t
  const slopeX = (height(x + reach, z) - height(x - reach, z)) / (2 * reach)
  const slopeZ = (height(x, z + reach) - height(x, z - reach)) / (2 * reach)
  return { t, normal: normalise([-slopeX, 1, -slopeZ]) }
}
