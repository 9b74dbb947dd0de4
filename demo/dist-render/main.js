// src/main.ts
import { readFile, writeFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { availableParallelism } from 'node:os'
import { parseArgs } from 'node:util'
import { Worker } from 'node:worker_threads'
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js'
import { encode as encodePng } from 'fast-png'

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

// src/develop.ts
function develop({ width: width2, height: height2, light }, how) {
  const glow = lensGlow(light, width2, height2)
  const pixels = new Uint8ClampedArray(width2 * height2 * 4)
  for (let y = 0; y < height2; y++) {
    for (let x = 0; x < width2; x++) {
      const i = y * width2 + x
      const rx = (x - width2 / 2) / (width2 / 2)
      const ry = (y - height2 / 2) / (width2 / 2)
      const fall = 1 / (1 + 0.22 * (rx * rx + ry * ry)) ** 2
      for (let c = 0; c < 3; c++) {
        const at = 3 * i + c
        const clear = (light[at] ?? 0) * (1 - how.flare) + how.flare * (glow[at] ?? 0)
        const exposed = clear * fall * how.exposure * (how.balance[c] ?? 1)
        const sensor = exposed + sensorNoise(exposed, x, y, c) * how.noise
        pixels[4 * i + c] = 255 * encoded(filmCurve(Math.max(0, sensor))) + hash(x, y, 90 + c) - 0.5
      }
      pixels[4 * i + 3] = 255
    }
  }
  return pixels
}
function sensorNoise(exposed, x, y, c) {
  const fine = gaussian(x, y, c)
  const coarse = gaussian(x >> 1, y >> 1, c + 5)
  return (0.72 * fine + 0.45 * coarse) * Math.sqrt(11e-5 * exposed + 14e-7)
}
function gaussian(x, y, c) {
  return (hash(x, y, c) + hash(x, y, c + 20) + hash(x, y, c + 40) + hash(x, y, c + 60) - 2) * 1.732
}
function filmCurve(v) {
  return (v * (2.51 * v + 0.03)) / (v * (2.43 * v + 0.59) + 0.14)
}
function encoded(v) {
  return v <= 31308e-7 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055
}
function lensGlow(light, width2, height2) {
  const factor = 4
  const w = Math.ceil(width2 / factor)
  const h = Math.ceil(height2 / factor)
  const small = new Float32Array(w * h * 3)
  for (let y = 0; y < height2; y++) {
    for (let x = 0; x < width2; x++) {
      const to = ((y >> 2) * w + (x >> 2)) * 3
      for (let c = 0; c < 3; c++) small[to + c] = (small[to + c] ?? 0) + (light[(y * width2 + x) * 3 + c] ?? 0) / 16
    }
  }
  const parts = [
    { radius: w / 230, share: 0.5 },
    { radius: w / 55, share: 0.32 },
    { radius: w / 14, share: 0.18 },
  ].map(({ radius, share }) => ({ blurred: boxBlurThrice(small, w, h, Math.max(1, Math.round(radius))), share }))
  const out = new Float32Array(light.length)
  for (let y = 0; y < height2; y++) {
    for (let x = 0; x < width2; x++) {
      const u = Math.min(w - 1.001, Math.max(0, (x + 0.5) / factor - 0.5))
      const v = Math.min(h - 1.001, Math.max(0, (y + 0.5) / factor - 0.5))
      const from = (Math.floor(v) * w + Math.floor(u)) * 3
      const [tx, ty] = [u % 1, v % 1]
      for (let c = 0; c < 3; c++) {
        let sum = 0
        for (const { blurred, share } of parts) {
          const p = from + c
          const top = (blurred[p] ?? 0) * (1 - tx) + (blurred[p + 3] ?? 0) * tx
          const bottom = (blurred[p + w * 3] ?? 0) * (1 - tx) + (blurred[p + w * 3 + 3] ?? 0) * tx
          sum += share * (top * (1 - ty) + bottom * ty)
        }
        out[(y * width2 + x) * 3 + c] = sum
      }
    }
  }
  return out
}
function boxBlurThrice(source, width2, height2, radius) {
  let plane = source
  for (let pass = 0; pass < 3; pass++) {
    plane = boxBlur(plane, width2, height2, radius, 3, width2 * 3)
    plane = boxBlur(plane, height2, width2, radius, width2 * 3, 3)
  }
  return plane
}
function boxBlur(source, count, lines, radius, step, lineStep) {
  const out = new Float32Array(source.length)
  for (let line2 = 0; line2 < lines; line2++) {
    for (let c = 0; c < 3; c++) {
      const start = line2 * lineStep + c
      const at = (i) => source[start + Math.min(count - 1, Math.max(0, i)) * step] ?? 0
      let sum = 0
      for (let i = -radius; i <= radius; i++) sum += at(i)
      for (let i = 0; i < count; i++) {
        out[start + i * step] = sum / (2 * radius + 1)
        sum += at(i + radius + 1) - at(i - radius)
      }
    }
  }
  return out
}

// src/tracer/vector.ts
var add = (a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
var subtract = (a, b) => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
var scale = (a, k) => [a[0] * k, a[1] * k, a[2] * k]
var dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
var length = (a) => Math.sqrt(dot(a, a))
var normalise = (a) => scale(a, 1 / (length(a) || 1))
var along = (origin, direction, t) => [origin[0] + direction[0] * t, origin[1] + direction[1] * t, origin[2] + direction[2] * t]
var blend = (a, b, t) => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t]

// src/tracer/shapes.ts
function convex(halfSpaces, bounds, material) {
  return {
    bounds,
    material,
    intersect(origin, direction, near, far) {
      let enter = -Infinity
      let leave = Infinity
      let normal = [0, 1, 0]
      for (const half of halfSpaces) {
        const towards = dot(half.normal, direction)
        const rest = half.offset - dot(half.normal, origin)
        if (Math.abs(towards) < 1e-12) {
          if (rest < 0) return void 0
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
  const right = normalise([1, 0, -1])
  halfSpaces.push({ normal: left, offset: dot(left, [least[0] + cut, 0, least[2]]) })
  halfSpaces.push({ normal: right, offset: dot(right, [most[0] - cut, 0, least[2]]) })
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
function terrain(height2, least, most, step, material) {
  const above = ([x, y, z]) => y - height2(x, z)
  return {
    bounds: { least, most },
    material,
    intersect(origin, direction, near, far) {
      const span = insideBox(origin, direction, least, most, near, far)
      if (!span) return void 0
      let before = span.enter
      for (let t = span.enter; t < span.leave;) {
        const rest = above(along(origin, direction, t))
        if (rest < 0) return t === span.enter ? void 0 : groundHit(height2, origin, direction, bisect(above, origin, direction, before, t))
        before = t
        t += Math.max(step, 0.45 * rest)
      }
      return void 0
    },
  }
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
function groundHit(height2, origin, direction, t) {
  const [x, , z] = along(origin, direction, t)
  const reach = 0.05 + 8e-4 * t
  const slopeX = (height2(x + reach, z) - height2(x - reach, z)) / (2 * reach)
  const slopeZ = (height2(x, z + reach) - height2(x, z - reach)) / (2 * reach)
  return { t, normal: normalise([-slopeX, 1, -slopeZ]) }
}

// src/tracer/tree.ts
function buildTree(shapes4) {
  const root = build(shapes4)
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
function build(shapes4) {
  const bounds = around(shapes4)
  if (shapes4.length <= 3) return { bounds, shapes: shapes4 }
  const sides = [0, 1, 2].map((axis2) => (bounds.most[axis2] ?? 0) - (bounds.least[axis2] ?? 0))
  const axis = sides.indexOf(Math.max(...sides))
  const middle = (shape) => (shape.bounds.least[axis] ?? 0) + (shape.bounds.most[axis] ?? 0)
  const sorted = [...shapes4].sort((a, b) => middle(a) - middle(b))
  const half = sorted.length >> 1
  return { bounds, children: [build(sorted.slice(0, half)), build(sorted.slice(half))] }
}
function around(shapes4) {
  const pick = (corner, choose) => [0, 1, 2].map((axis) => choose(...shapes4.map((shape) => shape.bounds[corner][axis] ?? 0)))
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
  const stone2 = [tone * 1.06, tone, tone * 0.92]
  const bump = 3.2 * (fractal(along2 * 14 + 0.05, y * 14, 3, 13) - fractal(along2 * 14, y * 14, 3, 13))
  const tilt = Math.abs(normal[0]) > 0.5 ? [normal[0], bump * 0.4, bump] : [bump, bump * 0.4, normal[2]]
  return {
    albedo: blend(stone2, [0.1, 0.096, 0.09], mortar * 0.7),
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
function cabinWall(rows) {
  const paint = hullPaint([0.52, 0.53, 0.52], [0.52, 0.53, 0.52])
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
    return paint(place, normal, distance)
  }
}
function frontRow(rows, normal, x, y) {
  return normal[2] < -0.9 && x > 6.3 && x < 10.3 ? rows.find((row) => y > row.from && y < row.to) : void 0
}
function cabinWindow(u, v, index) {
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
function lifeboat() {
  const [x, y, z] = [5.15, 6.6, 29.2]
  const side = (sign) => normalise([sign, -0.55, 0])
  const end = (sign, aside) => normalise([aside * 0.75, -0.35, sign])
  const through = (normal, place) => ({
    normal,
    offset: normal[0] * place[0] + normal[1] * place[1] + normal[2] * place[2],
  })
  const roof = (sign) => normalise([sign * 0.8, 1, 0])
  return convex(
    [
      ...[-1, 1].map((sign) => through(side(sign), [x + sign * 0.62, y, z])),
      ...[-1, 1].flatMap((sign) => [-1, 1].map((aside) => through(end(sign, aside), [x + aside * 0.5, y, z + sign * 1.75]))),
      ...[-1, 1].map((sign) => through(roof(sign), [x + sign * 0.5, y + 0.1, z])),
      through([0, -1, 0], [x, y - 0.7, z]),
    ],
    { least: [x - 0.8, y - 0.8, z - 2.6], most: [x + 0.8, y + 0.9, z + 2.6] },
    ([, height2], normal) => ({
      albedo: height2 > y + 0.03 ? [0.42, 0.13, 0.035] : [0.5, 0.5, 0.48],
      roughness: 0.45,
      reflectance: 0.04,
      normal,
    }),
  )
}
function ferry() {
  const side = 4.25
  const hull = hullPaint([0.03, 0.055, 0.075], [0.13, 0.026, 0.02])
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
  const stone2 = hash(column, row, coping ? 9 : 8)
  const edge = Math.min(u * wide, (1 - u) * wide, v * depth, (1 - v) * depth)
  const rough = 6e-3 * (noise(x * 60, z * 60, 14) - 0.5)
  const joint = 1 - smoothstep(3e-3, coping ? 0.012 : 0.016, edge + rough)
  const dome = (coping ? 4e-3 : 0.016) * smoothstep(0, coping ? 0.05 : 0.07, edge)
  const grain = 5e-3 * fractal(x * 34, z * 34, 4, 31) + 16e-4 * noise(x * 190, z * 190, 33)
  return { height: dome + grain + 7e-3 * stone2 - 0.012 * joint, joint, stone: stone2 }
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
function lamp(x, z, height2, radiance) {
  const centre = [x, height2, z]
  const shapes4 = [
    capsule([x, 0, z], [x, 0.5, z], 0.115, iron),
    capsule([x, 0.5, z], [x, 0.62, z], 0.085, iron),
    capsule([x, 0.5, z], [x, height2 - 0.3, z], 0.052, iron),
    capsule([x, height2 - 0.34, z], [x, height2 - 0.24, z], 0.11, iron),
    ...[0, 1, 2, 3].map((i) => {
      const a = (i + 0.5) * (Math.PI / 2)
      return capsule(
        [x + 0.12 * Math.cos(a), height2 - 0.26, z + 0.12 * Math.sin(a)],
        [x + 0.2 * Math.cos(a), height2 + 0.27, z + 0.2 * Math.sin(a)],
        0.011,
        iron,
      )
    }),
    capsule([x, height2 + 0.3, z], [x, height2 + 0.34, z], 0.2, iron),
    sphere([x, height2 + 0.58, z], 0.05, iron),
    capsule([x, height2 + 0.34, z], [x, height2 + 0.56, z], 0.03, iron),
    sphere(centre, 0.13, glassLight(radiance)),
  ]
  return { shapes: shapes4, light: { centre, radius: 0.13, radiance } }
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
  const door = (place, normal, distance) => {
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
  const slope = normalise([0.75, 1, 0])
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
function ridge(angle, scaleOf, height2, seed) {
  return height2 * (0.35 + 0.65 * fractal(angle * scaleOf + 40, 3.7, 5, seed))
}
function sky(direction) {
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
    for (const height2 of [0.62, 1.12]) {
      parts.push(
        capsule([x, DECK + height2, lineAt(x) - 2.4], [x + SPACING / 2, DECK + height2, lineAt(x + SPACING / 2) - 2.4], 0.045, timber),
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
  const slope = smoothstep(0.86, 0.62, normal[1])
  const tuft = fractal(x * 1.4, z * 1.4, 5, 71)
  const grass = [0.045 + 0.05 * tuft, 0.05 + 0.04 * tuft, 0.02]
  const bed = Math.floor((y + 0.4 * fractal(x * 0.3, z * 0.3, 3, 72)) / 0.5)
  const tone = (0.055 + 0.05 * hash(bed, 3, 73)) * (0.6 + 0.8 * fractal(x * 2, y * 5 + z, 4, 74))
  const damp = smoothstep(1.4, 0.2, y)
  return {
    albedo: blend(blend(grass, [tone * 1.05, tone, tone * 0.92], slope), [0.014, 0.014, 0.013], damp),
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
  let height2 = -0.3
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
      height2 = Math.max(height2, Math.min(top, 1.7 * size * (1 - Math.max(Math.abs(u), Math.abs(v), 0.72 * (Math.abs(u) + Math.abs(v))))))
    }
  }
  return height2 + (height2 > -0.2 ? 0.05 * cell * (fractal((x * 9) / cell, (z * 9) / cell, 4, 89) - 0.5) : 0)
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
  const height2 = (a, b) => 0.02 * fractal(a * 9, b * 9, 5, 83)
  const here = height2(x, z)
  const weed = smoothstep(0.26, 0.08, y) * smoothstep(0.4, 0.6, fractal(x * 3, z * 3, 3, 84))
  const tone = 0.034 + 0.03 * fractal(x * 5, z * 5 + y, 4, 85)
  return {
    albedo: blend([tone * 1.04, tone, tone * 0.94], [0.02, 0.025, 8e-3], weed),
    roughness: 0.36,
    reflectance: 0.035,
    normal: normalise([normal[0] - (height2(x + step, z) - here) / step, normal[1], normal[2] - (height2(x, z + step) - here) / step]),
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
  const height2 = (a, b) =>
    0.012 * Math.sin(b * 9 + 5 * fractal(a * 0.8, b * 0.5, 3, 41)) + 0.03 * fractal(a * 3, b * 3, 4, 43) + 4e-3 * noise(a * 70, b * 70, 45)
  const step = 0.012
  const here = height2(x, z)
  const wet = Math.exp(out / 2.4) * 0.75 + 0.25 * smoothstep(0.42, 0.6, fractal(x * 0.5, z * 0.7, 4, 47))
  const bump = mixNumbers(1, 0.22, Math.min(1, wet))
  const grain = 0.75 + 0.5 * noise(x * 160, z * 160, 48)
  const shells = noise(x * 23, z * 23, 49) > 0.93 ? 1.7 : 1
  const tone = 0.085 * grain * shells * mixNumbers(1.15, 0.5, Math.min(1, wet))
  return {
    albedo: [tone * 1.12, tone, tone * 0.84],
    roughness: mixNumbers(0.62, 0.13, Math.min(1, wet)),
    reflectance: 0.028,
    normal: normalise([(-(height2(x + step, z) - here) / step) * bump, 1, (-(height2(x, z + step) - here) / step) * bump]),
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
  const up = Math.max(y, 0)
  const towards = Math.max(-1, Math.min(1, dot(direction, towardsSun)))
  const angle = Math.acos(towards)
  const sunward = smoothstep(2.4, 0, angle)
  let colour = blend([0.17, 0.24, 0.36], [0.045, 0.085, 0.19], smoothstep(0.05, 0.75, up))
  colour = blend(colour, blend([0.3, 0.23, 0.25], [0.98, 0.46, 0.17], sunward), Math.exp(-up * 6.2) * (0.35 + 0.65 * sunward))
  colour = add(colour, scale([1, 0.6, 0.26], 0.55 * Math.exp(-angle * 6.5) + 1.9 * Math.exp(-angle * 26)))
  colour = blend(colour, cloudLight(sunward, up, angle), 0.82 * clouds(x, z, up))
  const disc = smoothstep(DISC * 1.12, DISC * 0.9, angle)
  return blend(colour, [46, 30, 14], disc)
}
function clouds(x, z, up) {
  const flat = 1 / (up + 0.1)
  const cover = fractal(x * flat * 0.34 + 11.4, z * flat * 1.05 + 4.2, 6, 15)
  const veil = fractal(x * flat * 0.9 + 2, z * flat * 2.6 + 7, 5, 19)
  return smoothstep(0.5, 0.72, cover * 0.8 + veil * 0.24) * smoothstep(0.015, 0.12, up)
}
function cloudLight(sunward, up, angle) {
  const lit = [1.15 + 1.4 * Math.exp(-angle * 8), 0.5 + 0.7 * Math.exp(-angle * 8), 0.27 + 0.25 * Math.exp(-angle * 8)]
  return blend([0.1, 0.105, 0.15], lit, sunward ** 2.2 * Math.exp(-up * 2.3))
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
function wood2(x, z, height2, seed) {
  const cell = 0.3 * height2 + 0.6
  const [i, j] = [Math.floor(x / cell), Math.floor(z / cell)]
  let top = 0
  for (let a = i - 1; a <= i + 1; a++) {
    for (let b = j - 1; b <= j + 1; b++) {
      const own = height2 * (0.5 + 0.5 * hash(a, b, seed))
      const dx = x - (a + 0.15 + 0.7 * hash(a, b, seed + 1)) * cell
      const dz = z - (b + 0.15 + 0.7 * hash(a, b, seed + 2)) * cell
      const away = Math.hypot(dx, dz) / (0.23 * own + 0.25)
      const tier = 0.06 * Math.sin(away * 26 + 9 * hash(a, b, seed + 3)) + 0.1 * (noise(x * 5, z * 5, seed) - 0.5)
      top = Math.max(top, own * (1 - away + tier * away))
    }
  }
  return top
}
function ridgeShape(ridge2) {
  const { z, depth, side, height: height2, foot, trees, seed } = ridge2
  const wide = 1.5 * z + 60
  const ground = (x, at) => {
    const inland =
      side === 0
        ? 1
        : smoothstep(0, 1, ((x - foot) * side) / (0.75 * wide) + 0.12 * (fractal(x / (0.2 * z), at / (0.2 * z), 4, seed) - 0.5))
    const across = smoothstep(z - depth, z - 0.2 * depth, at) * smoothstep(z + depth, z + 0.2 * depth, at)
    const rough = 0.55 + 0.9 * fractal(x / (0.34 * z) + seed, at / (0.5 * z), 5, seed)
    const open = side === 0 ? 0.35 + 0.65 * smoothstep(0, 0.5 * wide, Math.abs(x - 0.12 * z)) : 1
    return height2 * inland ** 0.7 * across * rough * open - 0.8
  }
  const surface = (x, at) => {
    const base = ground(x, at)
    return trees > 0 && base > 0.7
      ? base + wood2(x, at, trees * (0.6 + 0.6 * fractal(x / 40, at / 40, 3, seed + 5)), seed) * smoothstep(0.7, 3, base)
      : base
  }
  const least = [side > 0 ? foot - 25 : -wide, -0.4, z - depth]
  const most = [side < 0 ? foot + 25 : wide, 1.7 * height2 + trees + 2, z + depth]
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
  const up = Math.max(y, 0)
  const flat = 1 / (up + 0.14)
  const cover = fractal(x * flat * 0.5 + 5.2, z * flat * 0.9 + 1.3, 6, 7)
  const sunward = smoothstep(0.1, 1, z * 0.9 + x * 0.42)
  let colour = blend([0.86, 0.84, 0.8], [0.36, 0.42, 0.5], smoothstep(0, 0.7, up))
  colour = blend(colour, [1.12, 1, 0.84], 0.5 * sunward * Math.exp(-up * 4))
  return blend(colour, [0.5, 0.53, 0.57], 0.55 * smoothstep(0.42, 0.72, cover) * smoothstep(0.02, 0.25, up))
}

// src/photos/pineInlet/water.ts
function offShore2(x, z) {
  return z - 5.6 + 0.28 * x - 1.3 * (fractal(x * 0.4, 3.1, 4, 21) - 0.5)
}
var inlet = (place, _normal, distance) => (offShore2(place[0], place[2]) > 0 ? water3(place, distance) : pebbles(place))
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
function pebbles([x, , z]) {
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
  const wet = smoothstep(-1.1, -0.1, offShore2(x, z))
  const gap = smoothstep(0.42, 0.68, best.away)
  const tone = mixNumbers(0.06 + 0.13 * best.tone, 0.022, gap) * mixNumbers(1, 0.45, wet) * (0.8 + 0.4 * noise(x * 90, z * 90, 65))
  return {
    albedo: [tone * (1 + 0.12 * hash(Math.floor(best.tone * 999), 1, 2)), tone, tone * 0.95],
    roughness: mixNumbers(0.7, 0.22, wet),
    reflectance: 0.03,
    normal: normalise([best.dx * 1.1, 1, best.dz * 1.1]),
  }
}
var boulder = ([x, y, z], normal) => {
  const height2 = (a, b) => 0.05 * fractal(a * 6, b * 6 + y, 5, 83)
  const step = 0.02
  const here = height2(x, z)
  const moss = smoothstep(0.5, 0.9, normal[1]) * smoothstep(0.45, 0.6, fractal(x * 3, z * 3, 4, 84))
  const tone = 0.075 + 0.06 * fractal(x * 4, z * 4 + y * 3, 5, 85)
  return {
    albedo: blend([tone * 1.02, tone, tone * 0.95], [0.035, 0.046, 0.012], moss),
    roughness: mixNumbers(0.75, 0.3, smoothstep(0.22, 0.05, y)),
    reflectance: 0.03,
    normal: normalise([normal[0] - (height2(x + step, z) - here) / step, normal[1], normal[2] - (height2(x, z + step) - here) / step]),
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

// src/photos/index.ts
var photos = [ferryQuay, headlandPhoto, pineInlet]

// src/main.ts
var { values } = parseArgs({
  options: {
    width: { type: 'string', default: '3000' },
    samples: { type: 'string', default: '36' },
    only: { type: 'string' },
    out: { type: 'string', default: new URL('../photos/', import.meta.url).pathname },
  },
})
var width = Number(values.width)
var height = Math.round((width * 2) / 3)
var JPEG_LIMIT = 15e5
var DEPTH_WIDTH = 1e3
var DEPTH_NEAR = 2
var DEPTH_FAR = 2e3
var DEPTH_SPAN = 1 / DEPTH_NEAR - 1 / DEPTH_FAR
async function expose(photo) {
  const light = new Float32Array(width * height * 3)
  const depth = new Float32Array(width * height)
  const threads = availableParallelism()
  let done = 0
  const run = (first) =>
    new Promise((resolve, reject) => {
      const workerData = { photo: photo.name, width, height, samples: Number(values.samples), first, step: threads }
      const worker = new Worker(new URL('./expose.js', import.meta.url), { workerData })
      worker.on('message', ({ y, row }) => {
        for (let x = 0; x < width; x++) {
          light.set(row.subarray(x * 4, x * 4 + 3), (y * width + x) * 3)
          depth[y * width + x] = row[x * 4 + 3] ?? 0
        }
        if (++done % 200 === 0) console.log(`${photo.name}: ${Math.round((100 * done) / height)} %`)
      })
      worker.on('error', reject)
      worker.on('exit', () => resolve())
    })
  await Promise.all(Array.from({ length: threads }, (_, first) => run(first)))
  return { light, depth }
}
async function writeJpeg(path, pixels) {
  const module = createRequire(import.meta.url).resolve('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')
  await init(await WebAssembly.compile(await readFile(module)))
  for (let quality = 92; quality > 50; quality -= 3) {
    const picture = { data: pixels, width, height, colorSpace: 'srgb' }
    const bytes = await encodeJpeg(picture, { quality })
    if (bytes.byteLength < JPEG_LIMIT || quality <= 53) return writeFile(path, new Uint8Array(bytes))
  }
}
async function writeDepth(path, depth) {
  const w = Math.min(width, DEPTH_WIDTH)
  const h = Math.round((w * height) / width)
  const data = new Uint16Array(w * h)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const from = Math.floor(((y + 0.5) * height) / h) * width + Math.floor(((x + 0.5) * width) / w)
      data[y * w + x] = Math.round(65535 * Math.min(1, Math.max(0, (1 / (depth[from] ?? DEPTH_FAR) - 1 / DEPTH_FAR) / DEPTH_SPAN)))
    }
  }
  await writeFile(path, encodePng({ width: w, height: h, data, depth: 16, channels: 1 }))
}
for (const photo of photos.filter(({ name }) => !values.only || name === values.only)) {
  const { light, depth } = await expose(photo)
  await writeJpeg(`${values.out}${photo.name}.jpg`, develop({ width, height, light }, photo.develop))
  await writeDepth(`${values.out}${photo.name}-depth.png`, depth)
  console.log(`${photo.name} written`)
}
