import { UserProblem } from './userProblem'

/** A table of colours as it stands in a file: red, green, blue of each entry one behind the other, from black on, red counting fastest in a cube. */
interface CubeFile {
  readonly kind: 'curves' | 'cube'
  readonly size: number
  readonly least: readonly [number, number, number]
  readonly most: readonly [number, number, number]
  readonly values: readonly number[]
}

/** A table over 0-1, with entries clamped to 0-1: curves for red, green and blue each, or a cube of all. */
export interface ColourTableData {
  readonly kind: 'curves' | 'cube'
  readonly size: number
  readonly values: Float64Array
}

const SIZES = { curves: { word: 'LUT_1D_SIZE', most: 65536 }, cube: { word: 'LUT_3D_SIZE', most: 256 } } as const
/** Entries that are kept: finer tables are read at so many places. */
const MOST = { curves: 1024, cube: 33 }

/** The range of 8-bit codes; that of deeper ones is wider. */
const LEAST_CODES = 255

/** Reads a `.cube` file (Cube LUT Specification 1.0). @throws UserProblem that names the file, and the line where something is wrong */
export function readCube(text: string, fileName: string): ColourTableData {
  const file = parse(text, fileName)
  const isPlain = file.least.every((v) => v === 0) && file.most.every((v) => v === 1)
  const clamped = Float64Array.from(file.values, (v) => Math.min(1, Math.max(0, v)))
  if (isPlain && file.size <= MOST[file.kind]) return { kind: file.kind, size: file.size, values: clamped }
  return resampled({ ...file, values: clamped })
}

function parse(text: string, fileName: string): CubeFile {
  const wrong = (line: number, words: string): UserProblem =>
    new UserProblem(`“${fileName}” is not a table of colours that can be read: line ${line + 1}, ${words}.`)
  let [kind, size]: [CubeFile['kind'] | undefined, number] = [undefined, 0]
  let [least, most]: [CubeFile['least'], CubeFile['most']] = [
    [0, 0, 0],
    [1, 1, 1],
  ]
  let codes = 1
  const values: number[] = []
  const lines = text.split(/\r\n|\r|\n/)
  lines.forEach((whole, at) => {
    const line = whole.trim()
    if (line === '' || line.startsWith('#')) return
    const [word = '', ...rest] = line.split(/\s+/)
    if (word === 'TITLE') return
    const numbers = (/^[-+.\d]/.test(word) ? [word, ...rest] : rest).map(Number)
    if (numbers.some((value) => !Number.isFinite(value))) throw wrong(at, `“${line.slice(0, 40)}” is not understood`)
    const three = numbers as unknown as [number, number, number]
    if (word === SIZES.curves.word || word === SIZES.cube.word) {
      if (kind) throw wrong(at, 'a second size')
      kind = word === SIZES.curves.word ? 'curves' : 'cube'
      size = numbers[0] ?? 0
      const { most: largest } = SIZES[kind]
      if (!Number.isInteger(size) || size < 2 || size > largest) throw wrong(at, `a size is a whole number from 2 to ${largest}`)
    } else if (word === 'DOMAIN_MIN' || word === 'DOMAIN_MAX') {
      if (numbers.length !== 3) throw wrong(at, 'three numbers are needed')
      if (word === 'DOMAIN_MIN') least = three
      else most = three
    } else if (/^[-+.\d]/.test(word)) {
      if (!kind) throw wrong(at, 'numbers before a size')
      if (numbers.length !== 3) throw wrong(at, 'three numbers are needed')
      values.push(...numbers)
    } else if (/^LUT_(1|3)D_INPUT_RANGE$/.test(word)) {
      if (numbers.length !== 2) throw wrong(at, 'two numbers are needed')
      const [from = 0, to = 1] = numbers
      // A range of codes, as 0 to 255, goes for what comes in and for what goes out.
      if (from === 0 && to >= LEAST_CODES) codes = to
      else [least, most] = [Array(3).fill(from), Array(3).fill(to)] as unknown as [CubeFile['least'], CubeFile['most']]
    } else throw wrong(at, `“${word.slice(0, 40)}” is not understood`)
  })
  const end = lines.length - 1
  if (!kind) throw wrong(end, 'there is no size')
  if (least.some((v, i) => v >= (most[i] ?? 0))) throw wrong(end, 'the domain is empty')
  const wanted = kind === 'curves' ? size : size ** 3
  if (values.length !== 3 * wanted) throw wrong(end, `${wanted} entries are needed, and there are ${Math.floor(values.length / 3)}`)
  return { kind, size, least, most, values: codes === 1 ? values : values.map((value) => value / codes) }
}

/** The same table over 0-1, with as many entries as are kept at most. */
function resampled(file: Omit<CubeFile, 'values'> & { readonly values: Float64Array }): ColourTableData {
  const { kind, least, most } = file
  const size = Math.min(MOST[kind], Math.max(file.size, kind === 'cube' ? MOST.cube : MOST.curves))
  const places = Array.from({ length: size }, (_, i) => i / (size - 1))
  const within = (v: number, channel: 0 | 1 | 2): number => (v - least[channel]) / (most[channel] - least[channel])
  const values =
    kind === 'curves'
      ? places.flatMap((v) => ([0, 1, 2] as const).map((channel) => onCurve(file.values, file.size, channel, within(v, channel))))
      : places.flatMap((b) =>
          places.flatMap((g) => places.flatMap((r) => inCube(file.values, file.size, [within(r, 0), within(g, 1), within(b, 2)]))),
        )
  return { kind, size, values: Float64Array.from(values) }
}

function cellOf(v: number, size: number): readonly [cell: number, part: number] {
  const at = Math.min(1, Math.max(0, v)) * (size - 1)
  const cell = Math.min(size - 2, Math.floor(at))
  return [cell, at - cell]
}

function onCurve(values: Float64Array, size: number, channel: number, v: number): number {
  const [cell, part] = cellOf(v, size)
  const [a = 0, b = 0] = [values[3 * cell + channel], values[3 * (cell + 1) + channel]]
  return a + part * (b - a)
}

/** Tetrahedral interpolation: of the corners of a cell along the way that goes up the channel with the largest part first. */
function inCube(values: Float64Array, size: number, colour: readonly [number, number, number]): [number, number, number] {
  const cells = colour.map((v) => cellOf(v, size))
  const order = [0, 1, 2].sort((a, b) => (cells[b]?.[1] ?? 0) - (cells[a]?.[1] ?? 0))
  const steps = [1, size, size * size]
  let at = cells.reduce((sum, [cell], channel) => sum + cell * (steps[channel] ?? 0), 0)
  const found: [number, number, number] = [values[3 * at] ?? 0, values[3 * at + 1] ?? 0, values[3 * at + 2] ?? 0]
  for (const channel of order) {
    const next = at + (steps[channel] ?? 0)
    const part = cells[channel]?.[1] ?? 0
    for (const k of [0, 1, 2] as const) found[k] += part * ((values[3 * next + k] ?? 0) - (values[3 * at + k] ?? 0))
    at = next
  }
  return found
}
