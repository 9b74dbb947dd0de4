/** Primaries and white as CIE 1931 x, y; `gamma` of all channels. */
export interface MatrixSpace {
  readonly red: readonly [number, number]
  readonly green: readonly [number, number]
  readonly blue: readonly [number, number]
  readonly gamma: number
}

type Triple = readonly [number, number, number]

/** White of D65 and of the profile connection space, D50 (ICC.1:2022, 7.2.16), XYZ. */
const D65: Triple = [0.95047, 1, 1.08883]
const D50: Triple = [0.9642, 1, 0.8249]
/** Bradford: responses of cones (ICC.1:2022, annex E). */
const BRADFORD: readonly Triple[] = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
]

const times = (m: readonly Triple[], v: Triple): Triple =>
  m.map((row) => row[0] * v[0] + row[1] * v[1] + row[2] * v[2]) as unknown as Triple

function inverse(m: readonly Triple[]): Triple[] {
  const [[a, b, c], [d, e, f], [g, h, i]] = m as readonly [Triple, Triple, Triple]
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  return [
    [(e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det],
    [(f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det],
    [(d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det],
  ]
}

/** Columns of the matrix from linear red, green, blue to XYZ of D50. */
function columnsOf({ red, green, blue }: MatrixSpace): Triple[] {
  const xyz = ([x, y]: readonly [number, number]): Triple => [x / y, 1, (1 - x - y) / y]
  const columns = [red, green, blue].map(xyz)
  const rows = [0, 1, 2].map((k) => columns.map((column) => column[k]!)) as unknown as Triple[]
  const scale = times(inverse(rows), D65)
  const [from, to] = [times(BRADFORD, D65), times(BRADFORD, D50)]
  const adapt = (v: Triple): Triple => {
    const cones = times(BRADFORD, v)
    return times(inverse(BRADFORD), cones.map((value, i) => (value * to[i]!) / from[i]!) as unknown as Triple)
  }
  return columns.map((column, k) => adapt(column.map((v) => v * scale[k]!) as unknown as Triple))
}

/** An ICC profile of version 2 with a matrix and a gamma, or of grey with a gamma alone (ICC.1:2001-04). */
export function iccProfile(space: MatrixSpace | { readonly gamma: number }): Uint8Array {
  const isGrey = !('red' in space)
  const xyz = (v: Triple): Uint8Array => {
    const tag = new Uint8Array(20)
    tag.set([...'XYZ '].map((c) => c.charCodeAt(0)))
    const view = new DataView(tag.buffer)
    v.forEach((value, i) => view.setInt32(8 + 4 * i, Math.round(value * 65536)))
    return tag
  }
  const gamma = new Uint8Array(16)
  gamma.set([...'curv'].map((c) => c.charCodeAt(0)))
  new DataView(gamma.buffer).setUint32(8, 1)
  new DataView(gamma.buffer).setUint16(12, Math.round(space.gamma * 256))
  const name = 'Made for a test'
  const description = new Uint8Array(100)
  description.set([...'desc'].map((c) => c.charCodeAt(0)))
  new DataView(description.buffer).setUint32(8, name.length + 1)
  description.set(
    [...name].map((c) => c.charCodeAt(0)),
    12,
  )
  const tags: [string, Uint8Array][] = [
    ['desc', description],
    ['wtpt', xyz(D50)],
  ]
  if (isGrey) tags.push(['kTRC', gamma])
  else {
    const columns = columnsOf(space)
    ;['r', 'g', 'b'].forEach((letter, i) => tags.push([`${letter}XYZ`, xyz(columns[i]!)], [`${letter}TRC`, gamma]))
  }
  let at = 128 + 4 + 12 * tags.length
  const total = at + tags.reduce((sum, [, tag]) => sum + tag.length, 0)
  const profile = new Uint8Array(total)
  const view = new DataView(profile.buffer)
  const write = (text: string, to: number): void =>
    profile.set(
      [...text].map((c) => c.charCodeAt(0)),
      to,
    )
  view.setUint32(0, total)
  view.setUint32(8, 0x02200000)
  write(`mntr${isGrey ? 'GRAY' : 'RGB '}XYZ `, 12)
  write('acsp', 36)
  D50.forEach((value, i) => view.setInt32(68 + 4 * i, Math.round(value * 65536)))
  view.setUint32(128, tags.length)
  tags.forEach(([tagName, tag], i) => {
    write(tagName, 132 + 12 * i)
    view.setUint32(136 + 12 * i, at)
    view.setUint32(140 + 12 * i, tag.length)
    profile.set(tag, at)
    at += tag.length
  })
  return profile
}
