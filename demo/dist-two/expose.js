// src/expose.ts
import { parentPort, workerData } from 'node:worker_threads'

// src/tracer/vector.ts
var add = (a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
var subtract = (a, b) => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
var scale = (a, k) => [a[0] * k, a[1] * k, a[2] * k]
var multiply = (a, b) => [a[0] * b[0], a[1] * b[1], a[2] * b[2]]
var dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
var length = (a) => Math.sqrt(dot(a, a))
var normalise = (a) => scale(a, 1 / (length(a) || 1))
var along = (origin, direction, t) => [origin[0] + direction[0] * t, origin[1] + direction[1] * t, origin[2] + direction[2] * t]
var cross = (a, b) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
var reflect = (d, n) => along(d, n, -2 * dot(d, n))
var blend = (a, b, t) => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t]
function basis(n) {
  const helper = Math.abs(n[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]
  const u = normalise(cross(helper, n))
  return [u, cross(n, u)]
}

// src/tracer/shapes.ts
function convex(halfSpaces, bounds, material) {
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      let enter = -Infinity
      let leave = Infinity
      let normal = [0, 1, 0]
      for (const half2 of halfSpaces) {
        const towards = dot(half2.normal, direction)
        const rest = half2.offset - dot(half2.normal, origin)
        if (Math.abs(towards) < 1e-12) {
          if (rest < 0) return void 0
          continue
        }
        const t = rest / towards
        if (towards < 0) {
          if (t > enter) {
            enter = t
            normal = half2.normal
          }
        } else if (t < leave) leave = t
      }
      return enter < leave && enter > near && enter < far ? { t: enter, normal } : void 0
    },
  }
}
function box(least, most, material) {
  const halfSpaces = [0, 1, 2].flatMap((axis) => [
    { normal: unit(axis, 1), offset: most[axis] ?? 0 },
    { normal: unit(axis, -1), offset: -(least[axis] ?? 0) },
  ])
  return convex(halfSpaces, { least, most }, material)
}
function unit(axis, sign) {
  return [axis === 0 ? sign : 0, axis === 1 ? sign : 0, axis === 2 ? sign : 0]
}
function chamferedBox(least, most, cut, material) {
  const halfSpaces = [0, 1, 2].flatMap((axis) => [
    { normal: unit(axis, 1), offset: most[axis] ?? 0 },
    { normal: unit(axis, -1), offset: -(least[axis] ?? 0) },
  ])
  const left = normalise([-1, 0, -1])
  const right2 = normalise([1, 0, -1])
  halfSpaces.push({ normal: left, offset: dot(left, [least[0] + cut, 0, least[2]]) })
  halfSpaces.push({ normal: right2, offset: dot(right2, [most[0] - cut, 0, least[2]]) })
  return convex(halfSpaces, { least, most }, material)
}
function sphere(centre, radius, material) {
  return {
    bounds: { least: subtract(centre, [radius, radius, radius]), most: subtract(centre, [-radius, -radius, -radius]) },
    material,
    intersect(origin, direction, near, far) {
      const offset = subtract(origin, centre)
      const b = dot(offset, direction)
      const d = b * b - dot(offset, offset) + radius * radius
      if (d < 0) return void 0
      const root = Math.sqrt(d)
      const t = -b - root > near ? -b - root : -b + root
      if (t <= near || t >= far) return void 0
      return { t, normal: scale(subtract(along(origin, direction, t), centre), 1 / radius) }
    },
  }
}
function capsule(from, to, radius, material) {
  const axis = subtract(to, from)
  const axisSquared = dot(axis, axis)
  const bounds = {
    least: [0, 1, 2].map((i) => Math.min(from[i] ?? 0, to[i] ?? 0) - radius),
    most: [0, 1, 2].map((i) => Math.max(from[i] ?? 0, to[i] ?? 0) + radius),
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
      let best
      for (const end of ends) best = end.intersect(origin, direction, near, best?.t ?? far) ?? best
      return best
    },
  }
}
function floor(y, least, most, material) {
  return {
    bounds: { least: [least[0], y - 1e-3, least[1]], most: [most[0], y + 1e-3, most[1]] },
    material,
    intersect(origin, direction, near, far) {
      const t = (y - origin[1]) / direction[1]
      if (!(t > near && t < far)) return void 0
      const x = origin[0] + t * direction[0]
      const z = origin[2] + t * direction[2]
      const inside = x >= least[0] && x <= most[0] && z >= least[1] && z <= most[1]
      return inside ? { t, normal: [0, direction[1] < 0 ? 1 : -1, 0] } : void 0
    },
  }
}
function terrain(height, least, most, step, material) {
  const above = ([x, y, z]) => y - height(x, z)
  return {
    bounds: { least, most },
    material,
    intersect(origin, direction, near, far) {
      const span = insideBox(origin, direction, least, most, near, far)
      if (!span) return void 0
      let before = span.enter
      for (let t = span.enter; t < span.leave;) {
        const rest = above(along(origin, direction, t))
        if (rest < 0) return t === span.enter ? void 0 : groundHit(height, origin, direction, bisect(above, origin, direction, before, t))
        before = t
        t += Math.max(step, 0.45 * rest)
      }
      return void 0
    },
  }
}
function implicit(distance, bounds, material) {
  const NARROW = 6e-4
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      const span = insideBox(origin, direction, bounds.least, bounds.most, near, far)
      if (!span) return void 0
      let t = span.enter
      for (let i = 0; i < 200 && t < span.leave; i++) {
        const place = along(origin, direction, t)
        const rest = distance(place)
        if (rest < NARROW && t > near + 4e-3) return { t, normal: gradient(distance, place) }
        t += Math.max(Math.abs(rest), NARROW)
      }
      return void 0
    },
  }
}
function gradient(distance, [x, y, z]) {
  const e = 1e-3
  return normalise([
    distance([x + e, y, z]) - distance([x - e, y, z]),
    distance([x, y + e, z]) - distance([x, y - e, z]),
    distance([x, y, z + e]) - distance([x, y, z - e]),
  ])
}
function insideBox(origin, direction, least, most, near, far) {
  let [enter, leave] = [near, far]
  for (const axis of [0, 1, 2]) {
    const a = (least[axis] - origin[axis]) / direction[axis]
    const b = (most[axis] - origin[axis]) / direction[axis]
    enter = Math.max(enter, Math.min(a, b))
    leave = Math.min(leave, Math.max(a, b))
  }
  return enter < leave ? { enter, leave } : void 0
}
function bisect(above, origin, direction, from, to) {
  let [a, b] = [from, to]
  for (let i = 0; i < 14; i++) {
    const middle = (a + b) / 2
    if (above(along(origin, direction, middle)) > 0) a = middle
    else b = middle
  }
  return a
}
function groundHit(height, origin, direction, t) {
  const [x, , z] = along(origin, direction, t)
  const reach = 0.05 + 8e-4 * t
  const slopeX = (height(x + reach, z) - height(x - reach, z)) / (2 * reach)
  const slopeZ = (height(x, z + reach) - height(x, z - reach)) / (2 * reach)
  return { t, normal: normalise([-slopeX, 1, -slopeZ]) }
}

// src/tracer/tree.ts
function buildTree(shapes5) {
  const root = build(shapes5)
  return (origin, direction, near, far) => {
    const inverse = [1 / direction[0], 1 / direction[1], 1 / direction[2]]
    let best
    const visit = (node) => {
      if (!meets(node.bounds, origin, inverse, near, best?.t ?? far)) return
      for (const shape of node.shapes ?? []) {
        const hit = shape.intersect(origin, direction, near, best?.t ?? far)
        if (hit) best = { t: hit.t, normal: hit.normal, shape }
      }
      if (node.children) {
        visit(node.children[0])
        visit(node.children[1])
      }
    }
    visit(root)
    return best
  }
}
function build(shapes5) {
  const bounds = around(shapes5)
  if (shapes5.length <= 3) return { bounds, shapes: shapes5 }
  const sides = [0, 1, 2].map((axis2) => (bounds.most[axis2] ?? 0) - (bounds.least[axis2] ?? 0))
  const axis = sides.indexOf(Math.max(...sides))
  const middle = (shape) => (shape.bounds.least[axis] ?? 0) + (shape.bounds.most[axis] ?? 0)
  const sorted = [...shapes5].sort((a, b) => middle(a) - middle(b))
  const half2 = sorted.length >> 1
  return { bounds, children: [build(sorted.slice(0, half2)), build(sorted.slice(half2))] }
}
function around(shapes5) {
  const pick = (corner, choose) => [0, 1, 2].map((axis) => choose(...shapes5.map((shape) => shape.bounds[corner][axis] ?? 0)))
  return { least: pick('least', Math.min), most: pick('most', Math.max) }
}
function meets({ least, most }, origin, inverse, near, far) {
  const ax = (least[0] - origin[0]) * inverse[0]
  const bx = (most[0] - origin[0]) * inverse[0]
  const ay = (least[1] - origin[1]) * inverse[1]
  const by = (most[1] - origin[1]) * inverse[1]
  const az = (least[2] - origin[2]) * inverse[2]
  const bz = (most[2] - origin[2]) * inverse[2]
  const enter = Math.max(near, Math.min(ax, bx), Math.min(ay, by), Math.min(az, bz))
  return enter <= Math.min(far, Math.max(ax, bx), Math.max(ay, by), Math.max(az, bz))
}

// src/tracer/noise.ts
function hash(x, y, z = 0) {
  let h = Math.imul(x | 0, 2376512323) ^ Math.imul(y | 0, 3625334849) ^ Math.imul(z | 0, 3407524639)
  h = Math.imul(h ^ (h >>> 16), 2246822507)
  h = Math.imul(h ^ (h >>> 13), 3266489909)
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296
}
function smooth(t) {
  return t * t * t * (t * (6 * t - 15) + 10)
}
function noise(x, y, seed = 0) {
  const ix = Math.floor(x)
  const iy = Math.floor(y)
  const tx = smooth(x - ix)
  const ty = smooth(y - iy)
  const a = hash(ix, iy, seed)
  const b = hash(ix + 1, iy, seed)
  const c = hash(ix, iy + 1, seed)
  const d = hash(ix + 1, iy + 1, seed)
  return a + tx * (b - a) + ty * (c - a + tx * (a - b - c + d))
}
function fractal(x, y, octaves, seed = 0) {
  let sum = 0
  let weight = 0.5
  let total = 0
  for (let i = 0; i < octaves; i++) {
    sum += weight * noise(x, y, seed + i * 17)
    total += weight
    weight *= 0.5
    const turned = 1.6 * x - 1.2 * y
    y = 1.2 * x + 1.6 * y
    x = turned
  }
  return sum / total
}
function mixNumbers(a, b, t) {
  return a + (b - a) * t
}
function smoothstep(from, to, x) {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)))
  return t * t * (3 - 2 * t)
}

// src/photos/ferryQuay/materials.ts
var iron = ([x, y, z]) => {
  const rust = smoothstep(0.55, 0.75, fractal(x * 9 + z * 5, y * 9, 4, 101))
  return { albedo: blend([0.016, 0.018, 0.021], [0.07, 0.032, 0.016], rust), roughness: mixNumbers(0.34, 0.7, rust), reflectance: 0.05 }
}
var rope = ([x, y, z]) => {
  const lay = 0.5 + 0.5 * Math.sin(90 * (x + y + z))
  return { albedo: scale([0.17, 0.13, 0.08], 0.5 + 0.5 * lay), roughness: 0.9, reflectance: 0.02 }
}
var wood = ([x, y, z]) => {
  const grain = fractal(x * 3 + y * 40, z * 3 + y * 6, 4, 111)
  const board = Math.floor(y / 0.16)
  const gap = smoothstep(0, 0.012, Math.abs(y / 0.16 - board - 0.5) * -0.16 + 0.08)
  const tone = (0.4 + 0.9 * grain) * (0.75 + 0.5 * hash(board, 2, 2)) * (0.25 + 0.75 * gap)
  return { albedo: scale([0.1, 0.07, 0.046], tone), roughness: 0.5, reflectance: 0.035 }
}
var masonry = ([x, y, z], normal) => {
  const along2 = Math.abs(normal[0]) > 0.5 ? z : x
  const row = Math.floor(y / 0.31)
  const shifted = along2 + 0.33 * hash(row, 3, 6)
  const column = Math.floor(shifted / 0.62)
  const u = shifted / 0.62 - column
  const v = y / 0.31 - row
  const edge = Math.min(u * 0.62, (1 - u) * 0.62, v * 0.31, (1 - v) * 0.31) + 0.012 * (noise(along2 * 30, y * 30, 7) - 0.5)
  const mortar = 1 - smoothstep(8e-3, 0.028, edge)
  const damp = smoothstep(1.6, 0, y + 0.8 * fractal(along2 * 1.2, 3, 3, 8))
  const tone = (0.075 + 0.09 * hash(column, row, 12)) * (0.6 + 0.8 * fractal(along2 * 14, y * 14, 4, 13)) * (1 - 0.5 * damp)
  const stone3 = [tone * 1.06, tone, tone * 0.92]
  const bump = 3.2 * (fractal(along2 * 14 + 0.05, y * 14, 3, 13) - fractal(along2 * 14, y * 14, 3, 13))
  const tilt = Math.abs(normal[0]) > 0.5 ? [normal[0], bump * 0.4, bump] : [bump, bump * 0.4, normal[2]]
  return {
    albedo: blend(stone3, [0.1, 0.096, 0.09], mortar * 0.7),
    roughness: 0.75 - 0.3 * damp,
    reflectance: 0.03,
    normal: normalise(tilt),
  }
}
var glassLight = (radiance) => () => ({ albedo: [0, 0, 0], roughness: 1, reflectance: 0, emission: radiance })

// src/photos/ferryQuay/ferry.ts
function hullPaint(base, boot) {
  return ([, y, z], normal) => {
    const plate = Math.min(Math.abs(((z / 2.4) % 1) - 0.5), 0.5) < 6e-3 || Math.abs(((y / 1.1 + 10) % 1) - 0.5) < 8e-3 ? 0.78 : 1
    const streak = smoothstep(0.62, 0.85, fractal(z * 5.5, y * 0.35, 4, 121)) * smoothstep(2.6, 0.2, y)
    const under = smoothstep(-0.62, -0.66, y + 0.02 * noise(z * 4, 1, 5))
    const paint2 = blend(scale(base, plate * (0.88 + 0.24 * fractal(z * 1.5, y * 1.5, 4, 131))), [0.11, 0.05, 0.026], 0.55 * streak)
    const buckle = 0.03 * (fractal(z * 0.8, y * 1.1, 3, 133) - 0.5)
    return {
      albedo: blend(paint2, boot, under),
      roughness: 0.3 + 0.3 * streak,
      reflectance: 0.045,
      normal: normalise([normal[0], normal[1] + buckle, normal[2] + buckle]),
    }
  }
}
function cabinWall(rows) {
  const paint2 = hullPaint([0.52, 0.53, 0.52], [0.52, 0.53, 0.52])
  return (place, normal, distance) => {
    const [x, y, z] = place
    const row = normal[0] < -0.9 ? rows.find((r) => y > r.from && y < r.to && z > r.first && z < r.last) : frontRow(rows, normal, x, y)
    if (row) {
      const along2 = normal[0] < -0.9 ? z : x - row.first * 0.37
      const index = Math.floor((along2 - row.first) / row.pitch)
      const u = ((along2 - row.first) / row.pitch - index - 0.5) * row.pitch
      const v = (y - row.from) / (row.to - row.from)
      const inside = row.width / 2 - Math.abs(u)
      if (inside > 0) {
        if (inside < 0.045 || v < 0.05 || v > 0.95) return { albedo: [0.05, 0.05, 0.05], roughness: 0.4, reflectance: 0.05 }
        return cabinWindow(u, v, index + rows.indexOf(row) * 40)
      }
    }
    return paint2(place, normal, distance)
  }
}
function frontRow(rows, normal, x, y) {
  return normal[2] < -0.9 && x > 6.3 && x < 10.3 ? rows.find((row) => y > row.from && y < row.to) : void 0
}
function cabinWindow(u, v, index) {
  const dark2 = hash(index, 1, 77) < 0.12
  const curtain = smoothstep(0.16, 0.1, Math.abs(u) < 0.12 ? 1 : 0.5 - Math.abs(u)) * (hash(index, 2, 77) < 0.5 ? 1 : 0)
  const ceiling = Math.exp(-((v - 0.86) ** 2) / 0.012) * (0.4 + 0.6 * hash(index, 5, 77))
  const clutter = 0.55 + 0.75 * fractal(u * 5 + index * 3.1, v * 4, 3, 79) - 0.5 * smoothstep(0.34, 0.2, v)
  const someone = hash(index, 3, 77) < 0.3 ? 1 : 0
  const seat = 0.22 * (hash(index, 4, 77) - 0.5)
  const head = smoothstep(0.075, 0.05, Math.hypot(u - seat, (v - 0.44) * 0.66))
  const shoulders = smoothstep(0.03, -0.03, Math.abs(u - seat) - 0.17 * smoothstep(0.36, 0.2, v) * smoothstep(-0.3, 0, 0.4 - v))
  const person = someone * Math.max(head, v < 0.34 ? shoulders : 0)
  const level =
    (dark2 ? 0.05 : 1) *
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
function lifeboat() {
  const [x, y, z] = [5.15, 6.6, 29.2]
  const side = (sign) => normalise([sign, -0.55, 0])
  const end = (sign, aside) => normalise([aside * 0.75, -0.35, sign])
  const through = (normal, place) => ({
    normal,
    offset: normal[0] * place[0] + normal[1] * place[1] + normal[2] * place[2],
  })
  const roof2 = (sign) => normalise([sign * 0.8, 1, 0])
  return convex(
    [
      ...[-1, 1].map((sign) => through(side(sign), [x + sign * 0.62, y, z])),
      ...[-1, 1].flatMap((sign) => [-1, 1].map((aside) => through(end(sign, aside), [x + aside * 0.5, y, z + sign * 1.75]))),
      ...[-1, 1].map((sign) => through(roof2(sign), [x + sign * 0.5, y + 0.1, z])),
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
function ferry() {
  const side = 4.25
  const hull2 = hullPaint([0.03, 0.055, 0.075], [0.13, 0.026, 0.02])
  const white = hullPaint([0.5, 0.51, 0.5], [0.5, 0.51, 0.5])
  const bow = normalise([-0.42, -0.12, -1])
  const flare = normalise([-1, -0.16, 0])
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
    hull2,
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

// src/photos/ferryQuay/ground.ts
var QUAY_EDGE = 3.1
function paving(x, z) {
  const coping = x > QUAY_EDGE - 0.62
  const depth = coping ? 1.15 : 0.165
  const wide = coping ? 0.66 : 0.245
  const shiftedX = coping ? x - QUAY_EDGE + 0.62 : x + 0.012 * (noise(x * 3, z * 3, 2) - 0.5)
  const row = Math.floor(z / depth)
  const offset = coping ? 0 : (row % 2) * 0.5 * wide + 0.05 * (hash(row, 5, 1) - 0.5)
  const column = Math.floor((shiftedX + offset) / wide)
  const u = (shiftedX + offset) / wide - column
  const v = z / depth - row
  const stone3 = hash(column, row, coping ? 9 : 8)
  const edge = Math.min(u * wide, (1 - u) * wide, v * depth, (1 - v) * depth)
  const rough = 6e-3 * (noise(x * 60, z * 60, 14) - 0.5)
  const joint = 1 - smoothstep(3e-3, coping ? 0.012 : 0.016, edge + rough)
  const dome = (coping ? 4e-3 : 0.016) * smoothstep(0, coping ? 0.05 : 0.07, edge)
  const grain = 5e-3 * fractal(x * 34, z * 34, 4, 31) + 16e-4 * noise(x * 190, z * 190, 33)
  return { height: dome + grain + 7e-3 * stone3 - 0.012 * joint, joint, stone: stone3 }
}
var wetStone = ([x, , z], _normal, distance) => {
  const here = paving(x, z)
  const step = 25e-4 + 9e-4 * distance
  const slopeX = (paving(x + step, z).height - here.height) / step
  const slopeZ = (paving(x, z + step).height - here.height) / step
  const hollow = fractal(x * 0.42 + 7, z * 0.3 + 2, 4, 51) + 0.16 * smoothstep(1.4, 0, Math.abs(x + 0.1 + 0.35 * Math.sin(z * 0.35)))
  const level = smoothstep(0.61, 0.76, hollow)
  const puddle = smoothstep(0.35, 0.75, level + 0.5 * (level > 0 ? here.joint - here.height * 18 : 0))
  const film = 0.55 + 0.45 * fractal(x * 2.6, z * 2.6, 3, 61)
  const tone = (0.05 + 0.085 * here.stone) * (0.7 + 0.6 * fractal(x * 21, z * 21, 4, 71)) * (1 - 0.7 * here.joint)
  const hue = hash(Math.floor(here.stone * 997), 3, 2)
  const dry = [tone * (1.02 + 0.1 * hue), tone, tone * (0.98 - 0.1 * hue)]
  const bump = ((1 - puddle) * (1 - 0.25 * film)) / (1 + 0.035 * distance)
  const rippleX = 0.02 * (noise(x * 5, z * 5, 81) - noise(x * 5 + 0.4, z * 5, 81)) * puddle
  return {
    albedo: scale(dry, mixNumbers(0.62, 0.34, puddle)),
    roughness: mixNumbers(mixNumbers(0.42, 0.24, film), 0.03, puddle),
    reflectance: mixNumbers(0.035, 0.026, puddle),
    normal: normalise([-slopeX * bump + rippleX, 1, -slopeZ * bump]),
  }
}
var water = ([x, , z], _normal, distance) => {
  const wave = (a, b) => 0.05 * fractal(a * 0.55, b * 0.34, 3, 91) + 0.014 * fractal(a * 2.6, b * 1.9, 3, 95)
  const step = 0.03 + 2e-3 * distance
  const here = wave(x, z)
  const fade = 1 / (1 + 0.012 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  return { albedo: [6e-3, 0.011, 0.014], roughness: 0.05, reflectance: 0.021, normal: normalise([-slopeX, 1, -slopeZ]) }
}

// src/photos/ferryQuay/quayside.ts
function lamp(x, z, height, radiance) {
  const centre = [x, height, z]
  const shapes5 = [
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
  return { shapes: shapes5, light: { centre, radius: 0.13, radiance } }
}
function bollard(z) {
  const x = QUAY_EDGE - 0.36
  return [
    capsule([x, 0, z], [x, 0.38, z], 0.105, iron),
    capsule([x - 0.06, 0.43, z], [x + 0.06, 0.43, z], 0.125, iron),
    capsule([x, 0, z], [x, 0.01, z], 0.17, iron),
  ]
}
function line(from, to, sag, radius, material) {
  const count = 14
  const at = (i) => {
    const t = i / count
    const drop = sag * 4 * t * (1 - t)
    return [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) - drop, mixNumbers(from[2], to[2], t)]
  }
  return Array.from({ length: count }, (_, i) => capsule(at(i), at(i + 1), radius, material))
}
function waitingHouse() {
  const door2 = (place, normal, distance) => {
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
  const slate = ([x, y, z]) => {
    const row = Math.floor((x + y) / 0.22)
    const tone = 0.03 + 0.03 * hash(row, Math.floor(z / 0.3 + 0.5 * (row % 2)), 15)
    return { albedo: [tone * 0.95, tone, tone * 1.1], roughness: 0.32, reflectance: 0.045 }
  }
  const slope2 = normalise([0.75, 1, 0])
  const roof2 = convex(
    [
      { normal: slope2, offset: slope2[0] * -4.35 + slope2[1] * 3.05 },
      { normal: [-slope2[0], slope2[1], 0], offset: -slope2[0] * -10.6 + slope2[1] * 3.05 },
      { normal: [0, -1, 0], offset: -3 },
      { normal: [0, 0, 1], offset: 22.6 },
      { normal: [0, 0, -1], offset: -9.6 },
    ],
    { least: [-10.8, 3, 9.6], most: [-4.2, 5.6, 22.6] },
    slate,
  )
  return [
    box([-10.3, 0, 10], [-4.7, 3.1, 22.2], door2),
    roof2,
    box([-6.2, 4.2, 12.4], [-5.6, 5.9, 13], masonry),
    capsule([-4.62, 0, 10.15], [-4.62, 3, 10.15], 0.045, iron),
  ]
}
function cargo() {
  return [
    box([-3.5, 0, 7.5], [-2.65, 0.66, 8.45], wood),
    box([-3.42, 0.66, 7.62], [-2.86, 1.14, 8.2], wood),
    box([-4.35, 0, 7.9], [-3.62, 0.52, 8.7], wood),
    // A coil of rope.
    ...Array.from({ length: 40 }, (_, i) => {
      const a = i * 0.47
      const b = a + 0.47
      const r = 0.3 - 15e-4 * i
      const y = 0.04 + 42e-4 * i
      return capsule(
        [-1.9 + r * Math.cos(a), y, 6.3 + r * Math.sin(a)],
        [-1.9 + r * Math.cos(b), y + 42e-4, 6.3 + r * Math.sin(b)],
        0.032,
        rope,
      )
    }),
  ]
}

// src/photos/ferryQuay/sky.ts
function ridge(angle, scaleOf, height, seed) {
  return height * (0.35 + 0.65 * fractal(angle * scaleOf + 40, 3.7, 5, seed))
}
function sky(direction) {
  const [x, y, z] = direction
  const up2 = Math.max(y, -0.02)
  const west = smoothstep(-0.2, 0.9, z * 0.8 - x * 0.45)
  let colour = blend([0.062, 0.098, 0.19], [0.01, 0.022, 0.062], smoothstep(0, 0.75, up2))
  const glow = Math.exp(-up2 * 11) * west
  colour = [colour[0] + 0.2 * glow, colour[1] + 0.1 * glow, colour[2] + 0.045 * glow]
  const flat = 1 / (up2 + 0.09)
  const cover = fractal(x * flat * 0.62 + 3.1, z * flat * 1.15 + 1.7, 6, 5)
  const cloud = smoothstep(0.46, 0.74, cover) * smoothstep(-0.01, 0.09, up2)
  const lit = blend([0.018, 0.027, 0.054], [0.13, 0.078, 0.07], Math.exp(-up2 * 6) * west)
  colour = blend(colour, lit, 0.75 * cloud)
  const angle = Math.atan2(x, z)
  const far = ridge(angle, 5, 0.075, 11)
  const near = ridge(angle, 9, 0.036, 23)
  if (y < far) colour = blend(colour, [0.034, 0.048, 0.088], smoothstep(0, 3e-3, far - y))
  if (y < near) colour = blend(colour, [0.013, 0.018, 0.032], smoothstep(0, 2e-3, near - y))
  return y < near ? addShoreLights(colour, angle, y) : colour
}
function addShoreLights(colour, angle, y) {
  const cell = 0.011
  const i = Math.floor(angle / cell)
  if (hash(i, 7, 3) > 0.3) return colour
  const dx = angle - (i + 0.2 + 0.6 * hash(i, 1, 4)) * cell
  const dy = y - (3e-3 + 0.011 * hash(i, 2, 4))
  const glow = 2.6 * hash(i, 3, 4) * Math.exp(-(dx * dx + dy * dy) / (2 * 11e-4 ** 2))
  const warm = hash(i, 4, 4)
  return [colour[0] + glow, colour[1] + glow * (0.55 + 0.25 * warm), colour[2] + glow * (0.25 + 0.35 * warm)]
}

// src/photos/ferryQuay/scene.ts
var WATER_LEVEL = -1.35
var WARM = [1, 0.6, 0.25]
var lamps = [lamp(-1.35, 10.6, 3.9, scale(WARM, 230)), lamp(-1.1, 24.5, 3.9, scale(WARM, 230))]
var shapes = [
  floor(0, [-40, -4], [QUAY_EDGE, 74], wetStone),
  box([-40, -3, -4], [QUAY_EDGE - 1e-3, -0.01, 74], masonry),
  floor(WATER_LEVEL, [-400, -50], [900, 1600], water),
  ...lamps.flatMap((one) => one.shapes),
  ...[7.2, 14.5, 22, 30].flatMap(bollard),
  ...line([QUAY_EDGE - 0.36, 0.36, 7.2], [4.7, 1.42, 13.6], 0.42, 0.034, rope),
  ...line([QUAY_EDGE - 0.36, 0.36, 14.5], [4.3, 1.4, 18.5], 0.3, 0.034, rope),
  ...ferry(),
  ...waitingHouse(),
  ...cargo(),
]
var ferryQuay = {
  name: 'ferry-quay',
  scene: {
    intersect: buildTree(shapes),
    lights: lamps.map((one) => one.light),
    sky,
    air: { colour: [0.034, 0.048, 0.088], density: 12e-4 },
  },
  camera: { place: [-0.35, 1.62, 0], target: [0.95, 1.86, 14], fieldOfView: 64, aperture: 4e-3, focus: 13 },
  develop: { exposure: 2.45, flare: 0.04, noise: 1, balance: [0.98, 1, 1.04] },
}

// src/photos/headland/trestle.ts
var timber = ([x, y, z]) => {
  const grain = fractal(x * 6 + z * 6, y * 3, 4, 111)
  return { albedo: scale([0.06, 0.05, 0.042], 0.5 + grain), roughness: 0.7, reflectance: 0.03 }
}
var DECK = 6.4
var FIRST = -17
var LAST = 62
var SPACING = 5.2
var lineAt = (x) => 58 - 0.3 * x
function trestle() {
  const bents = Array.from({ length: Math.floor((LAST - FIRST) / SPACING) + 1 }, (_, i) => bent(FIRST + i * SPACING, i))
  return [...bents.flat(), ...deck(), ...pierHead()]
}
function bent(x, number) {
  const z = lineAt(x)
  const lean = 0.1 * (hash(number, 1, 3) - 0.5)
  const pile = (dz, rake) => capsule([x + lean, -1.5, z + dz + rake], [x, DECK - 0.5, z + dz], 0.19, timber)
  return [
    pile(-1.7, -0.7),
    pile(0, 0),
    pile(1.7, 0.7),
    box([x - 0.2, DECK - 0.75, z - 2.3], [x + 0.2, DECK - 0.4, z + 2.3], timber),
    capsule([x + 0.1, 0.9, z - 2.2], [x + 0.1, DECK - 0.9, z + 1.8], 0.085, timber),
    capsule([x - 0.1, 0.9, z + 2.2], [x - 0.1, DECK - 0.9, z - 1.8], 0.085, timber),
    // Along the pier: a cross between this bent and the next.
    capsule([x, 1.1, z - 1.9], [x + SPACING, DECK - 0.9, lineAt(x + SPACING) - 1.8], 0.09, timber),
    capsule([x + SPACING, 1.1, lineAt(x + SPACING) - 1.9], [x, DECK - 0.9, z - 1.8], 0.09, timber),
  ]
}
function deck() {
  const parts = []
  for (let x = FIRST - 2; x < LAST; x += SPACING / 2) {
    const z = lineAt(x + SPACING / 4)
    parts.push(box([x, DECK - 0.4, z - 2.5], [x + SPACING / 2 + 0.02, DECK, z + 2.5], timber))
    parts.push(capsule([x, DECK, z - 2.4], [x, DECK + 1.15, z - 2.4], 0.06, timber))
    for (const height of [0.62, 1.12]) {
      parts.push(
        capsule([x, DECK + height, lineAt(x) - 2.4], [x + SPACING / 2, DECK + height, lineAt(x + SPACING / 2) - 2.4], 0.045, timber),
      )
    }
  }
  return parts
}
function pierHead() {
  const x = FIRST
  const z = lineAt(x)
  return [
    box([x + 7.6, DECK, z - 1.7], [x + 11.4, DECK + 2.5, z + 1.2], timber),
    ...[0, 1, 2, 3].map((i) =>
      box([x + 7.3 + 0.35 * i, DECK + 2.5 + 0.24 * i, z - 2], [x + 11.7 - 0.35 * i, DECK + 2.75 + 0.24 * i, z + 1.5], timber),
    ),
    capsule([x + 0.5, DECK, z], [x + 0.5, DECK + 5.2, z], 0.16, timber),
    capsule([x + 0.5, DECK + 1.2, z], [x - 4.6, DECK + 5.4, z], 0.12, timber),
    capsule([x + 0.5, DECK + 5.1, z], [x - 4.5, DECK + 5.3, z], 0.035, timber),
    capsule([x - 4.5, DECK + 5.3, z], [x - 4.5, DECK + 2.4, z], 0.03, timber),
    capsule([x - 1.6, -1, z - 2.3], [x - 1.6, DECK, z - 2.3], 0.05, timber),
    capsule([x - 1.1, -1, z - 2.3], [x - 1.1, DECK, z - 2.3], 0.05, timber),
    ...Array.from({ length: 16 }, (_, i) => capsule([x - 1.6, 0.2 + 0.38 * i, z - 2.3], [x - 1.1, 0.2 + 0.38 * i, z - 2.3], 0.03, timber)),
  ]
}

// src/photos/headland/headland.ts
var LEAST = [-110, -0.5, 56]
var MOST = [-6, 26, 170]
function headlandHeight(x, z) {
  const inland = smoothstep(-8, -46, x + 0.12 * (z - 90))
  const face = smoothstep(56, 74, z + 5 * fractal(x * 0.08, 2, 3, 61)) * smoothstep(170, 120, z)
  const rough = 2.1 * (fractal(x * 0.16, z * 0.16, 5, 63) - 0.5) + 0.7 * (fractal(x * 0.9, z * 0.9, 4, 65) - 0.5)
  const steps = 0.9 * Math.sin(7 * fractal(x * 0.05, z * 0.05, 3, 67))
  return (17 * inland ** 0.8 + steps * inland + rough) * face - 1 + 1.2 * face
}
var turf = ([x, y, z], normal) => {
  const slope2 = smoothstep(0.86, 0.62, normal[1])
  const tuft = fractal(x * 1.4, z * 1.4, 5, 71)
  const grass = [0.045 + 0.05 * tuft, 0.05 + 0.04 * tuft, 0.02]
  const bed = Math.floor((y + 0.4 * fractal(x * 0.3, z * 0.3, 3, 72)) / 0.5)
  const tone = (0.055 + 0.05 * hash(bed, 3, 73)) * (0.6 + 0.8 * fractal(x * 2, y * 5 + z, 4, 74))
  const damp = smoothstep(1.4, 0.2, y)
  return {
    albedo: blend(blend(grass, [tone * 1.05, tone, tone * 0.92], slope2), [0.014, 0.014, 0.013], damp),
    roughness: 0.85 - 0.4 * damp,
    reflectance: 0.03,
  }
}
var PLASTER = [0.34, 0.33, 0.31]
var plaster = ([x, y, z]) => {
  const stain = 0.75 + 0.4 * fractal(x * 2, y * 1.2 + z, 4, 81)
  return { albedo: [PLASTER[0] * stain, PLASTER[1] * stain, PLASTER[2] * stain], roughness: 0.8, reflectance: 0.03 }
}
function headland() {
  return [terrain(headlandHeight, LEAST, MOST, 0.45, turf), ...signalMast(-34, 84), ...keepersHut(-41.5, 88)]
}
function signalMast(x, z) {
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
function keepersHut(x, z) {
  const foot = headlandHeight(x, z) - 1.2
  return [
    box([x - 2.6, foot, z - 1.9], [x + 2.6, foot + 3.8, z + 1.9], plaster),
    ...[0, 1, 2, 3, 4].map((i) =>
      box([x - 2.9, foot + 3.8 + 0.3 * i, z - 2.1 + 0.4 * i], [x + 2.9, foot + 4.1 + 0.3 * i, z + 2.1 - 0.4 * i], timber),
    ),
    box([x + 1.2, foot + 4.2, z - 0.4], [x + 1.9, foot + 6.1, z + 0.3], plaster),
  ]
}
function rockHeight(x, z, cell, share) {
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
      const top = size * (0.62 + 0.22 * u - 0.16 * v)
      height = Math.max(height, Math.min(top, 1.7 * size * (1 - Math.max(Math.abs(u), Math.abs(v), 0.72 * (Math.abs(u) + Math.abs(v))))))
    }
  }
  return height + (height > -0.2 ? 0.05 * cell * (fractal((x * 9) / cell, (z * 9) / cell, 4, 89) - 0.5) : 0)
}
function rocks() {
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
var rock = ([x, y, z], normal) => {
  const step = 0.012
  const height = (a, b) => 0.02 * fractal(a * 9, b * 9, 5, 83)
  const here = height(x, z)
  const weed = smoothstep(0.26, 0.08, y) * smoothstep(0.4, 0.6, fractal(x * 3, z * 3, 3, 84))
  const tone = 0.034 + 0.03 * fractal(x * 5, z * 5 + y, 4, 85)
  return {
    albedo: blend([tone * 1.04, tone, tone * 0.94], [0.02, 0.025, 8e-3], weed),
    roughness: 0.36,
    reflectance: 0.035,
    normal: normalise([normal[0] - (height(x + step, z) - here) / step, normal[1], normal[2] - (height(x, z + step) - here) / step]),
  }
}

// src/photos/headland/shore.ts
function offShore(x, z) {
  return z - 9.2 - 0.16 * x - 2.6 * (fractal(x * 0.16 + 3, 8.3, 4, 33) - 0.5) - 0.35 * (noise(x * 1.3, 2, 34) - 0.5)
}
var shore = (place, normal, distance) => {
  const out = offShore(place[0], place[2])
  return out > 0 ? water2(place, distance, out) : sand(place, normal, out)
}
function sand([x, , z], _normal, out) {
  const height = (a, b) =>
    0.012 * Math.sin(b * 9 + 5 * fractal(a * 0.8, b * 0.5, 3, 41)) + 0.03 * fractal(a * 3, b * 3, 4, 43) + 4e-3 * noise(a * 70, b * 70, 45)
  const step = 0.012
  const here = height(x, z)
  const wet = Math.exp(out / 2.4) * 0.75 + 0.25 * smoothstep(0.42, 0.6, fractal(x * 0.5, z * 0.7, 4, 47))
  const bump = mixNumbers(1, 0.22, Math.min(1, wet))
  const grain = 0.75 + 0.5 * noise(x * 160, z * 160, 48)
  const shells = noise(x * 23, z * 23, 49) > 0.93 ? 1.7 : 1
  const tone = 0.085 * grain * shells * mixNumbers(1.15, 0.5, Math.min(1, wet))
  return {
    albedo: [tone * 1.12, tone, tone * 0.84],
    roughness: mixNumbers(0.62, 0.13, Math.min(1, wet)),
    reflectance: 0.028,
    normal: normalise([(-(height(x + step, z) - here) / step) * bump, 1, (-(height(x, z + step) - here) / step) * bump]),
  }
}
function water2([x, , z], distance, out) {
  const deep = smoothstep(0, 14, out)
  const wave = (a, b) =>
    (0.03 + 0.17 * deep) * fractal(a * 0.22, b * 0.62, 3, 91) + 0.02 * fractal(a * 1.7, b * 2.4, 3, 95) + 6e-3 * noise(a * 7, b * 9, 97)
  const step = 0.02 + 2e-3 * distance
  const here = wave(x, z)
  const fade = 1 / (1 + 6e-3 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  const lace = fractal(x * 2.2, z * 3.4, 4, 51)
  const edge = Math.exp(-out / 0.35) * smoothstep(0.28, 0.5, lace + 0.2)
  const roller = smoothstep(0.05, 0, Math.abs(out - 4.4 - 1.4 * noise(x * 0.22, 5, 52)) - 0.25) * smoothstep(0.45, 0.62, lace)
  const foam = Math.min(1, edge + 0.8 * roller)
  return {
    albedo: blend([0.012, 0.02, 0.021], [0.62, 0.6, 0.58], foam),
    roughness: mixNumbers(0.06, 0.8, foam),
    reflectance: 0.022,
    normal: normalise([-slopeX, 1, -slopeZ]),
  }
}

// src/photos/headland/sky.ts
var towardsSun = normalise([-0.052, 0.047, 1])
var DISC = 62e-4
function sky2(direction) {
  const [x, y, z] = direction
  const up2 = Math.max(y, 0)
  const towards = Math.max(-1, Math.min(1, dot(direction, towardsSun)))
  const angle = Math.acos(towards)
  const sunward = smoothstep(2.4, 0, angle)
  let colour = blend([0.17, 0.24, 0.36], [0.045, 0.085, 0.19], smoothstep(0.05, 0.75, up2))
  colour = blend(colour, blend([0.3, 0.23, 0.25], [0.98, 0.46, 0.17], sunward), Math.exp(-up2 * 6.2) * (0.35 + 0.65 * sunward))
  colour = add(colour, scale([1, 0.6, 0.26], 0.55 * Math.exp(-angle * 6.5) + 1.9 * Math.exp(-angle * 26)))
  colour = blend(colour, cloudLight(sunward, up2, angle), 0.82 * clouds(x, z, up2))
  const disc = smoothstep(DISC * 1.12, DISC * 0.9, angle)
  return blend(colour, [46, 30, 14], disc)
}
function clouds(x, z, up2) {
  const flat = 1 / (up2 + 0.1)
  const cover = fractal(x * flat * 0.34 + 11.4, z * flat * 1.05 + 4.2, 6, 15)
  const veil = fractal(x * flat * 0.9 + 2, z * flat * 2.6 + 7, 5, 19)
  return smoothstep(0.5, 0.72, cover * 0.8 + veil * 0.24) * smoothstep(0.015, 0.12, up2)
}
function cloudLight(sunward, up2, angle) {
  const lit = [1.15 + 1.4 * Math.exp(-angle * 8), 0.5 + 0.7 * Math.exp(-angle * 8), 0.27 + 0.25 * Math.exp(-angle * 8)]
  return blend([0.1, 0.105, 0.15], lit, sunward ** 2.2 * Math.exp(-up2 * 2.3))
}

// src/photos/headland/scene.ts
var shapes2 = [floor(0, [-900, -20], [900, 6e3], shore), ...headland(), ...trestle(), ...rocks()]
var SUN_DISTANCE = 2e4
var SUN_RADIUS = 47e-4 * SUN_DISTANCE
var headlandPhoto = {
  name: 'headland',
  scene: {
    intersect: buildTree(shapes2),
    lights: [{ centre: along([0, 0, 0], towardsSun, SUN_DISTANCE), radius: SUN_RADIUS, radiance: [26e3, 13500, 5200] }],
    sky: sky2,
    air: { colour: [0.5, 0.29, 0.17], density: 11e-4 },
  },
  camera: { place: [1.2, 1.75, -1], target: [-3, 3.8, 40], fieldOfView: 62, aperture: 3e-3, focus: 45 },
  develop: { exposure: 0.86, flare: 0.07, noise: 0.8, balance: [1, 1, 1.02] },
}

// src/photos/pineInlet/shores.ts
var ridges = [
  { z: 92, depth: 46, height: 17, side: 1, foot: 15, trees: 11, seed: 3 },
  { z: 165, depth: 70, height: 30, side: -1, foot: -26, trees: 13, seed: 11 },
  { z: 330, depth: 140, height: 62, side: 1, foot: 34, trees: 15, seed: 17 },
  { z: 640, depth: 240, height: 120, side: -1, foot: -20, trees: 16, seed: 23 },
  { z: 1250, depth: 480, height: 250, side: 0, foot: 0, trees: 18, seed: 31 },
  { z: 2600, depth: 900, height: 560, side: 0, foot: 0, trees: 0, seed: 41 },
]
function wood2(x, z, height, seed) {
  const cell = 0.3 * height + 0.6
  const [i, j] = [Math.floor(x / cell), Math.floor(z / cell)]
  let top = 0
  for (let a = i - 1; a <= i + 1; a++) {
    for (let b = j - 1; b <= j + 1; b++) {
      const own = height * (0.5 + 0.5 * hash(a, b, seed))
      const dx = x - (a + 0.15 + 0.7 * hash(a, b, seed + 1)) * cell
      const dz = z - (b + 0.15 + 0.7 * hash(a, b, seed + 2)) * cell
      const away = Math.hypot(dx, dz) / (0.23 * own + 0.25)
      const tier = 0.06 * Math.sin(away * 26 + 9 * hash(a, b, seed + 3)) + 0.1 * (noise(x * 5, z * 5, seed) - 0.5)
      top = Math.max(top, own * (1 - away + tier * away))
    }
  }
  return top
}
function ridgeShape(ridge3) {
  const { z, depth, side, height, foot, trees, seed } = ridge3
  const wide = 1.5 * z + 60
  const ground = (x, at) => {
    const inland =
      side === 0
        ? 1
        : smoothstep(0, 1, ((x - foot) * side) / (0.75 * wide) + 0.12 * (fractal(x / (0.2 * z), at / (0.2 * z), 4, seed) - 0.5))
    const across = smoothstep(z - depth, z - 0.2 * depth, at) * smoothstep(z + depth, z + 0.2 * depth, at)
    const rough = 0.55 + 0.9 * fractal(x / (0.34 * z) + seed, at / (0.5 * z), 5, seed)
    const open = side === 0 ? 0.35 + 0.65 * smoothstep(0, 0.5 * wide, Math.abs(x - 0.12 * z)) : 1
    return height * inland ** 0.7 * across * rough * open - 0.8
  }
  const surface = (x, at) => {
    const base = ground(x, at)
    return trees > 0 && base > 0.7
      ? base + wood2(x, at, trees * (0.6 + 0.6 * fractal(x / 40, at / 40, 3, seed + 5)), seed) * smoothstep(0.7, 3, base)
      : base
  }
  const least = [side > 0 ? foot - 25 : -wide, -0.4, z - depth]
  const most = [side < 0 ? foot + 25 : wide, 1.7 * height + trees + 2, z + depth]
  return terrain(surface, least, most, Math.max(0.1, 22e-4 * z), z > 2e3 ? stone : needles(seed))
}
function shores() {
  return ridges.map(ridgeShape)
}
var needles =
  (seed) =>
  ([x, y, z], normal) => {
    const bough = fractal(x * 2.2, y * 5 + z * 2.2, 4, seed)
    const tree = hash(Math.floor(x / 3), Math.floor(z / 3), seed)
    const bank = smoothstep(1.6, 0.3, y)
    const green = [0.018 + 0.022 * bough + 0.014 * tree, 0.03 + 0.034 * bough, 0.016 + 0.012 * bough]
    const rock2 = [0.13, 0.125, 0.115]
    return {
      albedo: blend(
        blend(green, rock2, 0.8 * bank * smoothstep(0.35, 0.6, fractal(x, z + y, 3, 9))),
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
var stone = ([x, y, z]) => {
  const tone = 0.1 + 0.08 * fractal(x / 60, y / 30 + z / 60, 5, 77)
  return { albedo: [tone * 0.96, tone, tone * 1.04], roughness: 0.9, reflectance: 0.02 }
}

// src/photos/pineInlet/sky.ts
function sky3([x, y, z]) {
  const up2 = Math.max(y, 0)
  const flat = 1 / (up2 + 0.14)
  const cover = fractal(x * flat * 0.5 + 5.2, z * flat * 0.9 + 1.3, 6, 7)
  const sunward = smoothstep(0.1, 1, z * 0.9 + x * 0.42)
  let colour = blend([0.86, 0.84, 0.8], [0.36, 0.42, 0.5], smoothstep(0, 0.7, up2))
  colour = blend(colour, [1.12, 1, 0.84], 0.5 * sunward * Math.exp(-up2 * 4))
  return blend(colour, [0.5, 0.53, 0.57], 0.55 * smoothstep(0.42, 0.72, cover) * smoothstep(0.02, 0.25, up2))
}

// src/materials/pebbles.ts
function pebbles([x, , z], offShore4) {
  const cell = 0.055
  let best = { away: 9, tone: 0, dx: 0, dz: 0 }
  for (let a = -1; a <= 1; a++) {
    for (let b = -1; b <= 1; b++) {
      const [i, j] = [Math.floor(x / cell) + a, Math.floor(z / cell) + b]
      const dx = x / cell - i - 0.2 - 0.6 * hash(i, j, 61)
      const dz = z / cell - j - 0.2 - 0.6 * hash(i, j, 62)
      const away = Math.hypot(dx, dz) * (0.8 + 0.5 * hash(i, j, 63))
      if (away < best.away) best = { away, tone: hash(i, j, 64), dx, dz }
    }
  }
  const wet = smoothstep(-1.1, -0.1, offShore4)
  const gap = smoothstep(0.42, 0.68, best.away)
  const tone = mixNumbers(0.06 + 0.13 * best.tone, 0.022, gap) * mixNumbers(1, 0.45, wet) * (0.8 + 0.4 * noise(x * 90, z * 90, 65))
  return {
    albedo: [tone * (1 + 0.12 * hash(Math.floor(best.tone * 999), 1, 2)), tone, tone * 0.95],
    roughness: mixNumbers(0.7, 0.22, wet),
    reflectance: 0.03,
    normal: normalise([best.dx * 1.1, 1, best.dz * 1.1]),
  }
}

// src/photos/pineInlet/water.ts
function offShore2(x, z) {
  return z - 5.6 + 0.28 * x - 1.3 * (fractal(x * 0.4, 3.1, 4, 21) - 0.5)
}
var inlet = (place, _normal, distance) => {
  const off = offShore2(place[0], place[2])
  return off > 0 ? water3(place, distance) : pebbles(place, off)
}
function water3([x, , z], distance) {
  const wave = (a, b) => 0.011 * fractal(a * 0.35, b * 0.6, 3, 91) + 16e-4 * fractal(a * 2.6, b * 3.4, 3, 95)
  const breath = smoothstep(0.5, 0.66, fractal(x * 8e-3 + 3, z * 0.03, 3, 97))
  const step = 0.02 + 2e-3 * distance
  const here = wave(x, z)
  const fade = (0.55 + 1.6 * breath) / (1 + 8e-3 * distance)
  const slopeX = ((wave(x + step, z) - here) / step) * fade
  const slopeZ = ((wave(x, z + step) - here) / step) * fade
  const shallow = Math.exp(-offShore2(x, z) / 1.6)
  return {
    albedo: blend([8e-3, 0.014, 0.013], [0.05, 0.047, 0.036], shallow),
    roughness: 0.04,
    reflectance: 0.021,
    normal: normalise([-slopeX, 1, -slopeZ]),
  }
}
var boulder = ([x, y, z], normal) => {
  const height = (a, b) => 0.05 * fractal(a * 6, b * 6 + y, 5, 83)
  const step = 0.02
  const here = height(x, z)
  const moss = smoothstep(0.5, 0.9, normal[1]) * smoothstep(0.45, 0.6, fractal(x * 3, z * 3, 4, 84))
  const tone = 0.075 + 0.06 * fractal(x * 4, z * 4 + y * 3, 5, 85)
  return {
    albedo: blend([tone * 1.02, tone, tone * 0.95], [0.035, 0.046, 0.012], moss),
    roughness: mixNumbers(0.75, 0.3, smoothstep(0.22, 0.05, y)),
    reflectance: 0.03,
    normal: normalise([normal[0] - (height(x + step, z) - here) / step, normal[1], normal[2] - (height(x, z + step) - here) / step]),
  }
}
function boulders() {
  const places = [
    [-2.7, 5.4, 0.55],
    [-3.5, 6.1, 0.38],
    [-1.9, 6.3, 0.24],
    [3.4, 5.2, 0.34],
    [4.4, 7.2, 0.5],
    [1.2, 8.1, 0.2],
    [-5.6, 9.2, 0.7],
  ]
  return places.flatMap(([x, z, size], i) => [
    sphere([x, -0.12 * size, z], size, boulder),
    sphere([x + 0.5 * size, -0.25 * size, z + 0.3 * size * (hash(i, 1, 4) - 0.5)], 0.8 * size, boulder),
    sphere([x - 0.45 * size, -0.3 * size, z - 0.2 * size], 0.72 * size, boulder),
  ])
}

// src/photos/pineInlet/scene.ts
var shapes3 = [floor(0, [-6e3, -12], [6e3, 9e3], inlet), ...shores(), ...boulders()]
var DISTANCE = 2e4
var pineInlet = {
  name: 'pine-inlet',
  scene: {
    intersect: buildTree(shapes3),
    // The sun behind thin cloud: a wide, weak light.
    lights: [{ centre: scale(normalise([0.45, 0.5, 0.72]), DISTANCE), radius: 0.16 * DISTANCE, radiance: [7, 6.4, 5.4] }],
    sky: sky3,
    air: { colour: [0.56, 0.6, 0.65], density: 45e-6 },
  },
  camera: { place: [0, 1.65, -1], target: [1.5, 4.6, 60], fieldOfView: 60, aperture: 3e-3, focus: 30 },
  develop: { exposure: 0.86, flare: 0.03, noise: 0.8, balance: [1, 1, 1.02] },
}

// src/photos/skiff/boat.ts
var LENGTH = 4.6
var HALF_BEAM = 0.82
var TURN = -0.5
var [COS, SIN] = [Math.cos(TURN), Math.sin(TURN)]
var MIDDLE = [1.35, 0.02, 9.2]
function afloat([x, y, z]) {
  return [MIDDLE[0] + COS * x + SIN * z, MIDDLE[1] + y, MIDDLE[2] - SIN * x + COS * z]
}
function aboard([x, y, z]) {
  const [dx, dz] = [x - MIDDLE[0], z - MIDDLE[2]]
  return [COS * dx - SIN * dz, y - MIDDLE[1], SIN * dx + COS * dz]
}
function sheer(x) {
  const t = x / (LENGTH / 2)
  return 0.44 + 0.05 * t + 0.15 * t * t
}
function keel(x) {
  const t = x / (LENGTH / 2)
  return -0.17 + 0.42 * Math.max(0, t) ** 6 + 0.1 * Math.max(0, -t) ** 3
}
function halfWidth(x, y) {
  const t = x / (LENGTH / 2)
  const plan = t > -0.1 ? 1 - Math.abs((t + 0.1) / 1.1) ** 2.3 : 1 - 0.3 * Math.abs((t + 0.1) / 0.9) ** 2
  const [low, high] = [keel(x), sheer(x)]
  const up2 = Math.min(1, Math.max(0, (y - low) / (high - low)))
  return Math.max(0, HALF_BEAM * Math.max(0, plan) * up2 ** 0.42)
}
function hull(place) {
  const [x, y, z] = aboard(place)
  const half2 = LENGTH / 2
  const ends = Math.max(-half2 - x, x - half2)
  const width = halfWidth(Math.min(half2, Math.max(-half2, x)), y)
  const up2 = (y - keel(x)) / (sheer(x) - keel(x))
  const lap = 0.012 * (up2 * 7 - Math.floor(up2 * 7))
  const outside = Math.max(Math.abs(z) - width - lap, y - sheer(x), keel(x) - y, ends)
  const inside = Math.max(Math.abs(z) - width + 0.028, keel(x) + 0.05 - y, -half2 + 0.04 - x)
  return 0.5 * Math.max(outside, -inside)
}
var paint = (place) => {
  const [x, y, z] = aboard(place)
  const inside = Math.abs(z) < halfWidth(x, y) - 0.012
  const worn = smoothstep(0.5, 0.72, fractal(x * 3, y * 14, 5, 211))
  const grain = fractal(x * 4, y * 60 + z * 20, 4, 213)
  const bare = scale([0.2, 0.15, 0.1], 0.5 + grain)
  if (inside) return { albedo: scale(bare, 1.1), roughness: 0.6, reflectance: 0.03 }
  const rail = smoothstep(0.055, 0.045, sheer(x) - y)
  const weed = smoothstep(0.07, 0, y + 0.03 * noise(x * 9, 1, 5))
  const white = [0.62, 0.63, 0.6]
  const top = blend(blend(white, [0.05, 0.16, 0.17], rail), bare, 0.55 * worn)
  return { albedo: blend(top, [0.03, 0.035, 0.02], 0.85 * weed), roughness: 0.42, reflectance: 0.04 }
}
var spar = ([x, y, z]) => {
  const grain = fractal(x * 30 + z * 30, y * 3, 4, 221)
  return { albedo: scale([0.3, 0.2, 0.11], 0.45 + 0.9 * grain), roughness: 0.4, reflectance: 0.04 }
}
var canvas = ([x, y, z], normal) => {
  const fold = fractal(x * 26 + z * 26, y * 5, 4, 223)
  return {
    albedo: scale([0.42, 0.26, 0.19], 0.55 + 0.7 * fold),
    roughness: 0.9,
    reflectance: 0.02,
    normal: blend(normal, [fold - 0.5, 0.2, noise(y * 6, x * 30, 3) - 0.5], 0.4),
  }
}
var hemp = ([x, y, z]) => ({
  albedo: scale([0.2, 0.16, 0.1], 0.6 + 0.4 * Math.sin(120 * (x + y + z))),
  roughness: 0.9,
  reflectance: 0.02,
})
function slackLine(from, to, sag, radius) {
  const count = 20
  const at = (i) => {
    const t = i / count
    return [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) - sag * 4 * t * (1 - t), mixNumbers(from[2], to[2], t)]
  }
  return Array.from({ length: count }, (_, i) => capsule(at(i), at(i + 1), radius, hemp))
}
function rig() {
  const [foot, top] = [afloat([0.55, -0.1, 0]), afloat([0.42, 4.3, 0.06])]
  const furled = Array.from({ length: 15 }, (_, i) => {
    const at = (k) => afloat([0.45 - 0.014 * k, 0.85 + 0.2 * k, 0.05 + 0.02 * Math.sin(k * 1.9)])
    return capsule(at(i), at(i + 1), 0.085 - 26e-4 * i + 0.014 * hash(i, 4, 9), canvas)
  })
  const lashings = [1, 4, 7, 10, 13].map((k) => {
    const [x, y, z] = [0.45 - 0.014 * k, 0.9 + 0.2 * k, 0.05]
    return capsule(afloat([x, y, z - 0.012]), afloat([x, y + 0.012, z + 0.012]), 0.088 - 26e-4 * k, hemp)
  })
  return [
    capsule(foot, top, 0.042, spar),
    sphere(top, 0.055, spar),
    ...furled,
    ...lashings,
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([2.16, 0.6, 0]), 0.03, 55e-4),
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([0.3, 0.5, 0.78]), 0.02, 55e-4),
    ...slackLine(afloat([0.43, 4.2, 0.05]), afloat([0.3, 0.5, -0.78]), 0.02, 55e-4),
    // A pair of oars laid along the thwarts.
    capsule(afloat([-1.5, 0.43, 0.24]), afloat([1.1, 0.47, 0.16]), 0.022, spar),
    capsule(afloat([-1.45, 0.43, 0.33]), afloat([1.15, 0.47, 0.27]), 0.022, spar),
  ]
}
function thwart(x) {
  const width = halfWidth(x, 0.34) - 0.03
  const plank = (place) => {
    const [px, py, pz] = aboard(place)
    return 0.8 * Math.max(Math.abs(px - x) - 0.11, Math.abs(py - 0.34) - 0.017, Math.abs(pz) - width)
  }
  const [cx, cy, cz] = afloat([x, 0.34, 0])
  return implicit(plank, { least: [cx - 1, cy - 0.03, cz - 1], most: [cx + 1, cy + 0.03, cz + 1] }, spar)
}
function skiff() {
  const reach = LENGTH / 2 + 0.1
  const post = [-3.05, 0, 5.1]
  const bounds = {
    least: [MIDDLE[0] - reach, -0.25, MIDDLE[2] - reach],
    most: [MIDDLE[0] + reach, 0.75, MIDDLE[2] + reach],
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

// src/photos/skiff/shore.ts
function offShore3(x, z) {
  return z - 4.5 - 0.14 * x - 1.1 * (fractal(x * 0.5, 7.1, 4, 121) - 0.5)
}
var sound = (place, _normal, distance) => {
  const off = offShore3(place[0], place[2])
  return off > 0 ? water4(place, distance, off) : pebbles(place, off)
}
function water4([x, , z], distance, off) {
  const wave = (a, b) => 0.012 * fractal(a * 0.5, b * 0.9, 3, 191) + 24e-4 * fractal(a * 3.1, b * 4.4, 3, 195)
  const breath = smoothstep(0.46, 0.66, fractal(x * 0.012 + 3, z * 0.05, 3, 197))
  const step = 0.02 + 2e-3 * distance
  const here = wave(x, z)
  const fade = ((0.5 + 1.9 * breath) / (1 + 0.01 * distance)) * smoothstep(0, 0.7, off)
  return {
    albedo: blend([8e-3, 0.013, 0.015], [0.05, 0.045, 0.038], Math.exp(-off / 0.9)),
    roughness: 0.04,
    reflectance: 0.021,
    normal: normalise([-((wave(x + step, z) - here) / step) * fade, 1, -((wave(x, z + step) - here) / step) * fade]),
  }
}
var dark = ([x, y, z]) => {
  const tone = 0.03 + 0.03 * fractal(x * 0.05, y * 0.2 + z * 0.05, 4, 205)
  return { albedo: [tone * 0.9, tone, tone * 0.9], roughness: 0.95, reflectance: 0.01 }
}
var stone2 = ([x, y, z], normal) => {
  const tone = 0.06 + 0.07 * fractal(x * 5, z * 5 + y * 4, 5, 207)
  const wet = smoothstep(0.2, 0.03, y)
  return {
    albedo: [tone, tone, tone * 0.96],
    roughness: mixNumbers(0.8, 0.25, wet),
    reflectance: 0.03,
    normal: normalise([
      normal[0] + 0.5 * (fractal(x * 9, z * 9, 3, 1) - 0.5),
      normal[1],
      normal[2] + 0.5 * (fractal(z * 9, y * 9, 3, 2) - 0.5),
    ]),
  }
}
function islands() {
  const island = (middle, size, height, seed) => {
    const surface = (x, z) => {
      const [u, v] = [(x - middle[0]) / size[0], (z - middle[1]) / size[1]]
      const body = Math.max(0, 1 - u * u - v * v) ** 0.6 * (0.5 + 0.9 * fractal(x / (0.22 * size[0]), z / size[1], 4, seed))
      const trees = 0.2 * fractal(x / 7, z / 30, 3, seed + 3) + 0.13 * hash(Math.floor(x / 5), 1, seed)
      return height * body * (0.75 + trees) - 0.5
    }
    const least = [middle[0] - size[0], -0.3, middle[1] - size[1]]
    return terrain(surface, least, [middle[0] + size[0], height * 1.5, middle[1] + size[1]], 3, dark)
  }
  return [
    island([-330, 950], [300, 110], 34, 3),
    island([-40, 1700], [420, 160], 52, 5),
    island([620, 1350], [380, 150], 46, 7),
    island([250, 2600], [900, 200], 110, 9),
  ]
}
function stones() {
  return Array.from({ length: 46 }, (_, i) => {
    const x = -6 + 12 * hash(i, 1, 301)
    const z = 4.1 + 0.14 * x + 2.4 * hash(i, 2, 301) ** 1.7
    const size = 0.06 + 0.26 * hash(i, 3, 301) ** 3
    const [wide, tall, turn] = [1 + 0.7 * hash(i, 4, 301), 0.5 + 0.35 * hash(i, 5, 301), 3 * hash(i, 6, 301)]
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
    const surface = ([px, py, pz]) => {
      const [dx, dy, dz] = [px - x, py + 0.2 * size, pz - z]
      const [u, v, w] = [(cos * dx - sin * dz) / wide, dy / tall, sin * dx + cos * dz]
      const lumps = 0.34 * size * (fractal(u / size + i, (v + w) / size, 3, 303) - 0.5)
      return 0.45 * (Math.hypot(u, v, w) - size + lumps)
    }
    const reach = 1.9 * size
    return implicit(surface, { least: [x - reach, -0.02, z - reach], most: [x + reach, size, z + reach] }, stone2)
  })
}

// src/photos/skiff/sky.ts
function sky4([x, y, z]) {
  const up2 = Math.max(y, 0)
  const sunward = smoothstep(-0.2, 1, 0.88 * z - 0.46 * x)
  let colour = blend([0.034, 0.052, 0.078], [36e-4, 62e-4, 0.0135], smoothstep(0, 0.5, up2) ** 0.55)
  const glow = sunward * (0.25 + 0.75 * sunward)
  colour = blend(colour, [0.27, 0.14, 0.066], 0.8 * glow * Math.exp(-up2 * 17))
  colour = blend(colour, [0.085, 0.09, 0.092], 0.45 * glow * Math.exp(-up2 * 7.5))
  const bank = smoothstep(0.5, 0.62, fractal(x * 3.2 + 2.4, y * 46, 5, 37)) * smoothstep(5e-3, 0.02, up2) * smoothstep(0.085, 0.04, up2)
  return blend(colour, scale([0.05, 0.052, 0.064], 1), 0.72 * bank)
}

// src/photos/skiff/scene.ts
var shapes4 = [floor(0, [-4e3, -12], [4e3, 9e3], sound), ...skiff(), ...islands(), ...stones()]
var skiffPhoto = {
  name: 'moored-skiff',
  scene: {
    intersect: buildTree(shapes4),
    // The moon, behind the camera at the left.
    lights: [{ centre: [-9e3, 7600, -9e3], radius: 380, radiance: [80, 84, 94] }],
    sky: sky4,
    air: { colour: [0.05, 0.055, 0.065], density: 12e-5 },
  },
  camera: { place: [0, 1.25, -0.4], target: [0.1, 2.75, 9], fieldOfView: 66, aperture: 4e-3, focus: 9.2 },
  develop: { exposure: 2.6, flare: 0.03, noise: 1.6, balance: [1, 1, 1.03] },
}

// src/photos/surveyHut/slope.ts
function snowHeight(x, z) {
  const rise = 0.055 * z + 0.06 * x + 0.9 * smoothstep(16, 60, z) * (0.3 + fractal(x * 0.02, z * 0.02, 3, 9)) * (z / 24)
  const drifts = 0.5 * (fractal(x * 0.09, z * 0.16, 3, 11) - 0.5) + 0.1 * (fractal(x * 0.5, z * 1.1, 3, 13) - 0.5)
  const ripples = 0.016 * fractal(x * 1.1 + 0.6 * z, z * 4.6, 3, 15)
  const bank = 0.34 * Math.exp(-(((x + 2.5) / 0.9) ** 2) - ((z - 15) / 2.4) ** 2)
  const track = pathDip(x, z)
  return rise + drifts + ripples * (1 - 0.7 * track) + bank - 0.13 * track
}
function pathDip(x, z) {
  if (z < 1 || z > 13.2) return 0
  const middle = -2.4 + 0.24 * (z - 1) + 0.35 * Math.sin(z * 0.55)
  const trodden = 0.45 * smoothstep(0.42, 0.1, Math.abs(x - middle))
  const stride = 0.36
  const index = Math.floor(z / stride)
  const side = index % 2 === 0 ? -0.12 : 0.12
  const [u, v] = [(x - middle - side) / 0.075, (z - (index + 0.5) * stride) / 0.15]
  return trodden + 0.75 * smoothstep(1.15, 0.75, Math.hypot(u, v))
}
var snow = ([x, y, z], normal, distance) => {
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
var mountain = (place, normal, distance) => {
  const [x, y, z] = place
  const steep = 1 - normal[1] + 0.34 * (fractal(x / 14, y / 5 + z / 14, 5, 81) - 0.5)
  const rock2 = smoothstep(0.3, 0.42, steep)
  const tone = 0.05 + 0.07 * fractal(x / 5, y / 3 + z / 5, 4, 83)
  const white = snow(place, normal, distance)
  return { ...white, albedo: blend(white.albedo, [tone, tone * 0.99, tone * 1.02], rock2) }
}
function ridge2(z, depth, height, seed) {
  const wide = 1.5 * z
  const surface = (x, at) => {
    const across = smoothstep(z - depth, z, at) * smoothstep(z + 1.4 * depth, z, at)
    const crest = 0.45 + 0.8 * fractal(x / (0.5 * z) + seed, 2.2, 4, seed)
    const rough = fractal(x / (0.16 * z), at / (0.2 * z), 6, seed + 2)
    return height * across * crest * (0.62 + 0.75 * Math.abs(rough - 0.5) + 0.3 * rough) + 0.03 * z
  }
  return terrain(surface, [-wide, 0, z - depth], [wide, 1.9 * height + 0.03 * z, z + 1.4 * depth], 6e-3 * z, mountain)
}
var bark = ([x, y, z]) => {
  const tone = 0.03 + 0.04 * fractal(x * 30 + z * 30, y * 8, 3, 91)
  return { albedo: [tone * 1.2, tone, tone * 0.85], roughness: 0.9, reflectance: 0.02 }
}
var marker = (place) => {
  const over = place[1] - snowHeight(place[0], place[2])
  const band = over > 1.28 && over < 1.56
  const weather = 0.7 + 0.5 * fractal(place[0] * 40, place[1] * 9, 3, 93)
  return {
    albedo: band ? [0.4 * weather, 0.06, 0.035] : [0.16 * weather, 0.13 * weather, 0.1 * weather],
    roughness: 0.7,
    reflectance: 0.03,
  }
}
function stake(x, z, lean) {
  const y = snowHeight(x, z)
  const top = [x + lean, y + 1.62, z + 0.02]
  return [capsule([x, y - 0.3, z], top, 0.034, marker), sphere([top[0], top[1] + 0.035, top[2]], 0.05, snow)]
}
function spruce(x, z, height, seed) {
  const y = snowHeight(x, z)
  const boughs = Array.from({ length: 34 }, (_, i) => {
    const up2 = 0.12 + 0.84 * (i / 34)
    const reach = (0.34 * height * (1 - up2) + 0.06) * (0.7 + 0.5 * hash(i, 1, seed))
    const turn = i * 2.4 + hash(i, 2, seed)
    const from = [x, y + up2 * height, z]
    const to = [x + reach * Math.cos(turn), y + up2 * height - 0.34 * reach, z + reach * Math.sin(turn)]
    const along2 = (t, lift) => [mixNumbers(from[0], to[0], t), mixNumbers(from[1], to[1], t) + lift, mixNumbers(from[2], to[2], t)]
    const twigs = [0.35, 0.6, 0.85].flatMap((t, k) =>
      [-1, 1].map((side) => {
        const a = turn + side * 0.9
        const own = 0.3 * reach * (1.1 - t) + 0.05
        const foot = along2(t, 0)
        return capsule(foot, [foot[0] + own * Math.cos(a), foot[1] - 0.3 * own, foot[2] + own * Math.sin(a)], 0.022 + 6e-3 * k, needles2)
      }),
    )
    return [
      capsule(from, to, 0.035, needles2),
      ...twigs,
      capsule(along2(0.25, 0.045), along2(0.92, 0.035), 0.036 + 0.03 * hash(i, 3, seed), snow),
    ]
  }).flat()
  return [capsule([x, y - 0.2, z], [x, y + height, z], 0.05, bark), ...boughs]
}
var needles2 = ([x, y, z]) => {
  const tone = 0.6 + 0.8 * fractal(x * 40, y * 40 + z * 40, 3, 95)
  return { albedo: [0.014 * tone, 0.026 * tone, 0.016 * tone], roughness: 0.9, reflectance: 0.015 }
}
var granite = ([x, y, z], normal) => {
  const tone = 0.08 + 0.1 * fractal(x * 4, z * 4 + y * 5, 5, 97)
  const white = smoothstep(0.55, 0.75, normal[1] + 0.3 * (fractal(x * 6, z * 6, 3, 98) - 0.5))
  return { albedo: blend([tone, tone * 0.98, tone * 0.96], [0.82, 0.83, 0.85], white), roughness: 0.85, reflectance: 0.03 }
}
function boulder2(x, z, size, seed) {
  const y = snowHeight(x, z)
  const surface = ([px, py, pz]) => {
    const [u, v, w] = [(px - x) / 1.3, (py - y) / 0.8, pz - z]
    return 0.4 * (Math.hypot(u, v, w) - size + 0.5 * size * (fractal((u + v) / size, (w - v) / size, 4, seed) - 0.5))
  }
  const reach = 1.7 * size
  return implicit(surface, { least: [x - reach, y - 0.3, z - reach], most: [x + reach, y + reach, z + reach] }, granite)
}
function slope() {
  return [
    terrain(snowHeight, [-40, -4, 0.6], [40, 14, 30], 0.05, snow),
    terrain(snowHeight, [-120, -6, 30], [120, 40, 110], 0.3, snow),
    ridge2(230, 120, 92, 21),
    ridge2(620, 260, 300, 27),
    ridge2(1500, 600, 640, 33),
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
    boulder2(2.6, 6.3, 0.36, 3),
    boulder2(-6.4, 13, 0.6, 4),
    boulder2(8.4, 17, 0.8, 6),
  ]
}

// src/photos/surveyHut/hut.ts
var [LEFT, RIGHT, FRONT, BACK] = [-1.9, 1.5, 13.4, 17.2]
var MIDDLE2 = (LEFT + RIGHT) / 2
var GROUND = snowHeight(MIDDLE2, FRONT) - 0.35
var EAVES = GROUND + 2.35
var PITCH = 0.72
var boards = ([x, y, z], normal) => {
  const along2 = Math.abs(normal[0]) > 0.5 ? z : x
  const width = 0.135
  const board = Math.floor(along2 / width)
  const inside = Math.abs(along2 / width - board - 0.5)
  const gap = smoothstep(0.5, 0.46, inside)
  const grain = fractal(along2 * 60, y * 3 + board, 4, 51)
  const worn = smoothstep(0.55, 0.8, fractal(along2 * 5, y * 1.2, 4, 53)) * (0.4 + 0.6 * hash(board, 1, 55))
  const red = scale([0.27, 0.032, 0.022], (0.7 + 0.5 * grain) * (0.85 + 0.3 * hash(board, 2, 57)))
  const rime = 0.55 * smoothstep(GROUND + 1.15, GROUND + 0.3, y + 0.4 * fractal(along2 * 7, y * 7, 3, 59))
  return {
    albedo: scale(blend(blend(red, [0.16, 0.1, 0.085], 0.5 * worn), [0.8, 0.82, 0.85], rime), 0.3 + 0.7 * gap),
    roughness: 0.75,
    reflectance: 0.03,
  }
}
var trim = ([x, y, z]) => {
  const tone = 0.5 + 0.2 * fractal(x * 30 + z * 30, y * 30, 3, 61)
  return { albedo: [tone, tone * 0.99, tone * 0.95], roughness: 0.6, reflectance: 0.04 }
}
var door = ([x, y]) => {
  const board = Math.floor(x / 0.16)
  const gap = smoothstep(0.5, 0.45, Math.abs(x / 0.16 - board - 0.5))
  const tone = (0.6 + 0.6 * fractal(x * 40, y * 3, 4, 63)) * (0.4 + 0.6 * gap)
  return { albedo: scale([0.07, 0.085, 0.08], tone), roughness: 0.6, reflectance: 0.03 }
}
var iron2 = () => ({ albedo: [0.02, 0.021, 0.023], roughness: 0.5, reflectance: 0.05 })
var litPane = ([x, y]) => {
  const curtain = smoothstep(0.1, 0.3, Math.abs(x - 0.72) + 0.05 * Math.sin(x * 60))
  const level = 0.72 * (0.75 + 0.5 * fractal(x * 4, y * 4, 2, 65)) * (1 - 0.35 * curtain)
  return { albedo: [0.01, 0.01, 0.01], roughness: 0.05, reflectance: 0.04, emission: scale([1, 0.6, 0.25], level) }
}
function gable(low, high, least, most, side, material) {
  const slopeOf = (sign) => normalise([sign * PITCH, 1, 0])
  const over = (sign, height) => {
    const n = slopeOf(sign)
    return n[0] * (sign < 0 ? LEFT : RIGHT) + n[1] * (EAVES + height)
  }
  const sides = side === 0 ? [-1, 1] : [side]
  const halfSpaces = [
    ...sides.map((sign) => ({ normal: slopeOf(sign), offset: over(sign, high) })),
    ...(side === 0 ? [] : [{ normal: scale(slopeOf(side), -1), offset: -over(side, low) }]),
    ...[0, 1, 2].flatMap((axis) => [
      { normal: [+(axis === 0), +(axis === 1), +(axis === 2)], offset: most[axis] ?? 0 },
      { normal: [-(axis === 0), -(axis === 1), -(axis === 2)], offset: -(least[axis] ?? 0) },
    ]),
  ]
  return convex(halfSpaces, { least, most }, material)
}
function roof() {
  const ridge3 = EAVES + (PITCH * (RIGHT - LEFT)) / 2
  const sides = [-1, 1]
  return sides.flatMap((side) => {
    const [inner, outer] = [MIDDLE2, side < 0 ? LEFT - 0.34 : RIGHT + 0.34]
    const [from, to] = [Math.min(inner, outer), Math.max(inner, outer)]
    return [
      gable(0, 0.07, [from, GROUND, FRONT - 0.4], [to, ridge3 + 0.2, BACK + 0.3], side, trim),
      // The snow on it in three sheets, each a little smaller, so that its edge is soft.
      ...[0.14, 0.22, 0.27].map((thick, i) => {
        const inset = 0.035 * i * i
        const least = [side < 0 ? from + inset : from - 0.02, GROUND, FRONT - 0.36 + inset]
        return gable(0.07, 0.07 + thick, least, [side > 0 ? to - inset : to + 0.02, ridge3 + 0.6, BACK + 0.26 - inset], side, snow)
      }),
    ]
  })
}
var WINDOW = [0.72, EAVES - 0.78, FRONT]
function window() {
  const [x, y, z] = WINDOW
  const bar = (least, most, proud) => box([x + least[0], y + least[1], z - proud], [x + most[0], y + most[1], z + 0.03], trim)
  return [
    box([x - 0.4, y - 0.45, z - 8e-3], [x + 0.4, y + 0.45, z + 0.02], litPane),
    bar([-0.47, -0.52], [-0.4, 0.52], 0.05),
    bar([0.4, -0.52], [0.47, 0.52], 0.05),
    bar([-0.4, 0.45], [0.4, 0.52], 0.05),
    bar([-0.5, -0.54], [0.5, -0.45], 0.09),
    bar([-0.022, -0.45], [0.022, 0.45], 0.03),
    bar([-0.4, -0.02], [0.4, 0.02], 0.03),
    capsule([x - 0.42, y - 0.42, z - 0.06], [x + 0.42, y - 0.43, z - 0.055], 0.042, snow),
  ]
}
function hut() {
  const ridge3 = EAVES + (PITCH * (RIGHT - LEFT)) / 2
  const doorway = box([-1.2, GROUND, FRONT - 0.03], [-0.3, GROUND + 2.1, FRONT + 0.02], door)
  const post = (x) => box([x - 0.05, GROUND, FRONT - 0.045], [x + 0.05, EAVES + 0.02, FRONT + 0.02], trim)
  return [
    gable(0, 0, [LEFT, GROUND - 1, FRONT], [RIGHT, ridge3 + 0.1, BACK], 0, boards),
    ...roof(),
    doorway,
    box([-1.28, GROUND, FRONT - 0.05], [-1.2, GROUND + 2.17, FRONT], trim),
    box([-0.3, GROUND, FRONT - 0.05], [-0.22, GROUND + 2.17, FRONT], trim),
    box([-1.28, GROUND + 2.1, FRONT - 0.055], [-0.22, GROUND + 2.19, FRONT], trim),
    sphere([-0.4, GROUND + 1.1, FRONT - 0.06], 0.03, iron2),
    post(LEFT + 0.03),
    post(RIGHT - 0.03),
    ...window(),
    // Stovepipe with a hat, and the mast of the instruments with its stays.
    capsule([0.85, EAVES + 0.3, 15.6], [0.85, ridge3 + 0.75, 15.6], 0.075, iron2),
    capsule([0.85, ridge3 + 0.86, 15.6], [0.85, ridge3 + 0.87, 15.6], 0.14, iron2),
    sphere([0.85, ridge3 + 0.93, 15.6], 0.13, snow),
    capsule([RIGHT + 1.5, GROUND - 0.2, 15.4], [RIGHT + 1.5, ridge3 + 1.6, 15.4], 0.032, iron2),
    capsule([RIGHT + 1.2, ridge3 + 1.3, 15.4], [RIGHT + 1.8, ridge3 + 1.3, 15.4], 0.014, iron2),
    ...[-0.3, 0.3].map((dx) => sphere([RIGHT + 1.5 + dx, ridge3 + 1.36, 15.4], 0.06, iron2)),
    ...[
      [RIGHT + 0.2, 14.2],
      [RIGHT + 3.4, 14.6],
      [RIGHT + 2.2, 17.4],
    ].map(([x = 0, z = 0]) => capsule([x, snowHeight(x, z), z], [RIGHT + 1.5, ridge3 + 1.05, 15.4], 6e-3, iron2)),
    // A pair of skis against the wall, a shovel by the door.
    capsule([-1.55, GROUND + 0.15, FRONT - 0.35], [-1.5, GROUND + 2, FRONT - 0.06], 0.032, door),
    capsule([-1.66, GROUND + 0.15, FRONT - 0.33], [-1.62, GROUND + 2, FRONT - 0.06], 0.032, door),
    capsule([0, GROUND + 0.3, FRONT - 0.3], [-0.06, GROUND + 1.35, FRONT - 0.08], 0.018, door),
  ]
}

// src/photos/surveyHut/sky.ts
function sky5([x, y, z]) {
  const up2 = Math.max(y, 0)
  const flat = 1 / (up2 + 0.2)
  const cover = fractal(x * flat * 0.7 + 1.2, z * flat * 0.7 + 4.3, 5, 57)
  const lighter = smoothstep(-0.3, 1, 0.8 * x + 0.4 * z)
  let colour = blend([0.42, 0.48, 0.57], [0.26, 0.31, 0.39], smoothstep(0, 0.6, up2))
  colour = blend(colour, [1.25, 1.15, 1.06], 0.6 * lighter * Math.exp(-up2 * 2.2))
  return blend(colour, [0.36, 0.4, 0.47], 0.5 * smoothstep(0.4, 0.7, cover))
}

// src/photos/surveyHut/scene.ts
var eye = snowHeight(-4.4, 0.9) + 1.62
var surveyHut = {
  name: 'survey-hut',
  scene: {
    intersect: buildTree([...slope(), ...hut()]),
    lights: [{ centre: [WINDOW[0], WINDOW[1], WINDOW[2] - 0.28], radius: 0.22, radiance: [2.1, 1.2, 0.48] }],
    sky: sky5,
    air: { colour: [0.42, 0.47, 0.54], density: 11e-4 },
  },
  camera: { place: [-3.4, eye, -0.6], target: [0.5, eye + 0.75, 14], fieldOfView: 56, aperture: 4e-3, focus: 13.5 },
  develop: { exposure: 0.95, flare: 0.04, noise: 0.9, balance: [1, 1, 1.02] },
}

// src/photos/index.ts
var photos = [ferryQuay, headlandPhoto, pineInlet, skiffPhoto, surveyHut]
function photoNamed(name) {
  const photo = photos.find((candidate) => candidate.name === name)
  if (!photo) throw new Error(`There is no sample photo named \u201C${name}\u201D.`)
  return photo
}

// src/tracer/trace.ts
var FAR = 1e6
var NEAR = 1e-3
var BOUNCES = 4
var BRIGHTEST_SAMPLE = 12
var MIRROR_UP_TO = 0.09
function trace(scene2, from, towards, random) {
  let origin = from
  let direction = towards
  let weight = [1, 1, 1]
  let light = [0, 0, 0]
  let seesLights = true
  let distance = FAR
  for (let bounce = 0; bounce < BOUNCES; bounce++) {
    const hit = scene2.intersect(origin, direction, NEAR, FAR)
    if (bounce === 0) distance = hit?.t ?? FAR
    const clearness = Math.exp(-scene2.air.density * Math.min(hit?.t ?? 4e3, 4e3))
    light = add(light, multiply(weight, scale(scene2.air.colour, hit ? 1 - clearness : 0)))
    if (!hit) return { light: add(light, limited(multiply(weight, scene2.sky(direction)), bounce)), distance }
    weight = scale(weight, clearness)
    const place = along(origin, direction, hit.t)
    const facing = dot(hit.normal, direction) > 0 ? scale(hit.normal, -1) : hit.normal
    const surface = hit.shape.material(place, facing, hit.t)
    if (surface.emission && seesLights) light = add(light, limited(multiply(weight, surface.emission), bounce))
    const normal = visibleNormal(surface.normal ?? facing, direction)
    const step = scatter(scene2, surface, place, facing, normal, direction, random)
    light = add(light, limited(multiply(weight, step.direct), bounce + 1))
    weight = multiply(weight, step.weight)
    if (Math.max(...weight) < 4e-3) break
    seesLights = step.seesLights
    origin = along(place, facing, 2e-3)
    direction = step.direction
  }
  return { light, distance }
}
function limited(light, bounce) {
  const most = Math.max(...light)
  return bounce > 0 && most > BRIGHTEST_SAMPLE ? scale(light, BRIGHTEST_SAMPLE / most) : light
}
function visibleNormal(normal, direction) {
  const away = dot(normal, direction)
  return away < -0.02 ? normal : normalise(along(normal, direction, -away - 0.02))
}
function scatter(scene2, surface, place, facing, normal, direction, random) {
  const cosine = Math.min(1, Math.max(0.02, -dot(normal, direction)))
  const grazing = Math.max(surface.reflectance, 1 - surface.roughness)
  const fresnel = surface.reflectance + (grazing - surface.reflectance) * (1 - cosine) ** 5
  const mirror = surface.roughness < MIRROR_UP_TO
  const direct = directLight(scene2, surface, place, facing, normal, direction, mirror ? 0 : fresnel, random)
  const chance = Math.min(0.95, Math.max(2e-3, fresnel / (fresnel + Math.max(...surface.albedo) + 1e-4)))
  if (random() < chance) {
    const bumped = roughNormal(normal, surface.roughness, random)
    const out = reflect(direction, visibleNormal(bumped, direction))
    const above = dot(out, facing) > 0 ? out : reflect(direction, facing)
    const k2 = fresnel / chance
    return { direct, direction: above, weight: [k2, k2, k2], seesLights: mirror }
  }
  const k = (1 - fresnel) / (1 - chance)
  return { direct, direction: cosineDirection(normal, random), weight: scale(surface.albedo, k), seesLights: false }
}
function directLight(scene2, surface, place, facing, normal, direction, shine, random) {
  const count = scene2.lights.length
  const light = scene2.lights[Math.min(count - 1, Math.floor(random() * count))]
  if (!light) return [0, 0, 0]
  const target = along(light.centre, randomOnSphere(random), light.radius)
  const offset = subtract(target, place)
  const distance = length(offset)
  const towards = scale(offset, 1 / distance)
  const cosine = dot(normal, towards)
  if (cosine <= 0 || dot(facing, towards) <= 0) return [0, 0, 0]
  const blocker = scene2.intersect(along(place, facing, 2e-3), towards, NEAR, distance - 2.2 * light.radius)
  if (blocker) return [0, 0, 0]
  const solidAngle = (Math.PI * light.radius * light.radius) / Math.max(distance * distance, light.radius * light.radius)
  const irradiance = scale(light.radiance, solidAngle * cosine * count)
  const matt = scale(surface.albedo, (1 - shine) / Math.PI)
  const half2 = normalise(subtract(towards, direction))
  const a2 = surface.roughness ** 4
  const d = dot(normal, half2) ** 2 * (a2 - 1) + 1
  const specular = shine > 0 ? (shine * a2) / (Math.PI * d * d * 4 * Math.max(0.08, cosine * Math.max(0.1, -dot(normal, direction)))) : 0
  return multiply(irradiance, add(matt, [specular, specular, specular]))
}
function randomOnSphere(random) {
  const z = 2 * random() - 1
  const angle = 2 * Math.PI * random()
  const r = Math.sqrt(1 - z * z)
  return [r * Math.cos(angle), r * Math.sin(angle), z]
}
function cosineDirection(normal, random) {
  return normalise(along(normal, randomOnSphere(random), 0.999))
}
function roughNormal(normal, roughness, random) {
  const a = roughness * roughness
  const u = random()
  const cosine = Math.sqrt((1 - u) / (1 + (a * a - 1) * u))
  const sine = Math.sqrt(1 - cosine * cosine)
  const angle = 2 * Math.PI * random()
  const [x, y] = basis(normal)
  const aside = add(scale(x, Math.cos(angle)), scale(y, Math.sin(angle)))
  return normalise(blendNormal(normal, aside, cosine, sine))
}
function blendNormal(normal, aside, cosine, sine) {
  return add(scale(normal, cosine), scale(aside, sine))
}

// src/expose.ts
var job = workerData
var { scene, camera } = photoNamed(job.photo)
var forward = normalise(subtract(camera.target, camera.place))
var right = normalise(cross([0, 1, 0], forward))
var up = cross(forward, right)
var half = Math.tan((camera.fieldOfView * Math.PI) / 360)
function generator(seed) {
  let state = seed | 0
  return () => {
    state = (state + 1831565813) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
function exposePixel(x, y, random) {
  let sum = [0, 0, 0]
  let depth = 0
  const grid = Math.ceil(Math.sqrt(job.samples))
  for (let i = 0; i < job.samples; i++) {
    const sx = ((i % grid) + random()) / grid + 0.35 * (random() - random())
    const sy = (Math.floor(i / grid) + random()) / grid + 0.35 * (random() - random())
    const u = ((x + sx) / job.width - 0.5) * 2 * half
    const v = (0.5 - (y + sy) / job.height) * 2 * half * (job.height / job.width)
    const towards = add(add(forward, scale(right, u)), scale(up, v))
    const angle = 2 * Math.PI * random()
    const radius = camera.aperture * Math.sqrt(random())
    const offset = add(scale(right, radius * Math.cos(angle)), scale(up, radius * Math.sin(angle)))
    const direction = normalise(subtract(scale(towards, camera.focus), offset))
    const { light, distance } = trace(scene, add(camera.place, offset), direction, random)
    sum = add(sum, light)
    depth += Math.min(distance, 5e3) / job.samples
  }
  return { light: scale(sum, 1 / job.samples), depth }
}
for (let y = job.first; y < job.height; y += job.step) {
  const row = new Float32Array(job.width * 4)
  const random = generator(y * 7919 + 17)
  for (let x = 0; x < job.width; x++) {
    const { light, depth } = exposePixel(x, y, random)
    row.set(light, x * 4)
    row[x * 4 + 3] = depth
  }
  parentPort?.postMessage({ y, row }, [row.buffer])
}
