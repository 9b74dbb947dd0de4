import { linearOf, mapRgb, type Rgb } from './hex'

type Triple = readonly [number, number, number]
type Matrix = readonly [Triple, Triple, Triple]

/** A colour space that photos are worked on and files are written in. All have the white of D65 and the transfer curve of sRGB. */
interface ColourSpaceDefinition {
  readonly label: string
  readonly hint: string
  /** From linear sRGB; nothing where the codes are those of sRGB. CSS Color Module Level 4, sample code, multiplied out. */
  readonly fromSrgb: Matrix | undefined
  /** To linear sRGB, from the same source. */
  readonly toSrgb: Matrix | undefined
  /** Red, green and blue as XYZ of D50, the white of profiles: by the Bradford matrix of ICC.1:2022, annex E. */
  readonly primaries: Matrix
  /** Value of the EXIF tag ColorSpace (CIPA DC-008, 4.6.6). */
  readonly exifCode: number
}

export const colourSpaces = {
  srgb: {
    label: 'sRGB',
    hint: 'As the web and most programs expect it.',
    fromSrgb: undefined,
    toSrgb: undefined,
    primaries: [
      [0.436065, 0.222491, 0.013916],
      [0.385147, 0.716873, 0.097076],
      [0.143066, 0.060608, 0.714096],
    ],
    exifCode: 1,
  },
  displayP3: {
    label: 'Display-P3',
    hint: 'For screens and further work in it. The colours are the same.',
    fromSrgb: [
      [0.8224619688, 0.1775380312, 0],
      [0.0331941989, 0.9668058011, 0],
      [0.0170826307, 0.0723974407, 0.9105199286],
    ],
    toSrgb: [
      [1.2249401763, -0.2249401763, 0],
      [-0.0420569547, 1.0420569547, 0],
      [-0.0196375546, -0.0786360456, 1.0982736001],
    ],
    primaries: [
      [0.515102, 0.241182, -0.001049],
      [0.291965, 0.692236, 0.041882],
      [0.157153, 0.066582, 0.784378],
    ],
    exifCode: 0xffff,
  },
} as const satisfies Record<string, ColourSpaceDefinition>
export type ColourSpace = keyof typeof colourSpaces

export const allColourSpaces = Object.keys(colourSpaces) as readonly ColourSpace[]

/** From linear light of one space to that of another; nothing where they are the same. One of the two is sRGB. */
export function matrixBetween(from: ColourSpace, to: ColourSpace): Matrix | undefined {
  return from === to ? undefined : (colourSpaces[from].toSrgb ?? colourSpaces[to].fromSrgb)
}

/** Linear light of an encoded colour of one space in another; below 0 or above 1 where that does not have it. */
export function linearIn(colour: Rgb, from: ColourSpace, to: ColourSpace): Rgb {
  const linear = linearOf(colour)
  const matrix = matrixBetween(from, to)
  if (!matrix) return linear
  return mapRgb(linear, (_, row) => matrix[row].reduce((sum, part, i) => sum + part * (linear[i] ?? 0), 0))
}

const D50: Triple = [0.9642, 1, 0.8249]
/** From D65 to D50 (ICC.1:2022, annex E.4). */
const ADAPTED: Matrix = [
  [1.047882, 0.022919, -0.050201],
  [0.029587, 0.990479, -0.017059],
  [-0.009232, 0.015076, 0.751678],
]
/** Curve of sRGB as function type 3: (a x + b) ^ g from d on, else c x (ICC.1:2022, 10.18). */
const CURVE = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045]
const HEAD = 128
const TAG_ENTRY = 12

/** The ICC profile of a space, version 4.3: matrix and curve (ICC.1:2022, section 8.3). */
export function profileOf(space: ColourSpace): Uint8Array<ArrayBuffer> {
  const { label, primaries } = colourSpaces[space]
  return matrixProfile(label, primaries, CURVE)
}

/** Red, green and blue of ROMM RGB (ISO 22028-2) as XYZ of D50: with them there is room for the colours of all surfaces and screens. */
const ROMM: Matrix = [
  [0.7976749, 0.2880402, 0],
  [0.1351917, 0.7118741, 0],
  [0.0313534, 0.0000857, 0.82521],
]

/** The profile of a space so wide that nothing is cut off in it, with the curve of sRGB. */
export function widestProfile(): Uint8Array<ArrayBuffer> {
  return matrixProfile('Widest', ROMM, CURVE)
}

const rommToSrgb = multiplied(inverted(columnsOf(colourSpaces.srgb.primaries)), columnsOf(ROMM))

/** Linear light in sRGB of an encoded colour of that space; below 0 or above 1 where sRGB does not have it. */
export function linearFromWidest(colour: Rgb): Rgb {
  const linear = linearOf(colour)
  return mapRgb(linear, (_, row) => rommToSrgb[row].reduce((sum, part, i) => sum + part * (linear[i] ?? 0), 0))
}

/** Colours as the columns of a matrix. */
function columnsOf(colours: Matrix): Matrix {
  return [0, 1, 2].map((row) => [0, 1, 2].map((column) => colours[column]?.[row] ?? 0)) as unknown as Matrix
}

function multiplied(a: Matrix, b: Matrix): Matrix {
  const cell = (row: number, column: number): number => [0, 1, 2].reduce((sum, k) => sum + (a[row]?.[k] ?? 0) * (b[k]?.[column] ?? 0), 0)
  return [0, 1, 2].map((row) => [0, 1, 2].map((column) => cell(row, column))) as unknown as Matrix
}

function inverted([[a, b, c], [d, e, f], [g, h, i]]: Matrix): Matrix {
  const whole = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  return [
    [e * i - f * h, c * h - b * i, b * f - c * e],
    [f * g - d * i, a * i - c * g, c * d - a * f],
    [d * h - e * g, b * g - a * h, a * e - b * d],
  ].map((row) => row.map((value) => value / whole)) as unknown as Matrix
}

/**
 * A profile of a matrix and one curve, version 4.3 (ICC.1:2022, section 8.3).
 * @param primaries red, green and blue as XYZ of D50
 * @param parameters of function type 3, or a single exponent
 */
export function matrixProfile(label: string, primaries: readonly Triple[], parameters: readonly number[]): Uint8Array<ArrayBuffer> {
  const [red = D50, green = D50, blue = D50] = primaries
  const curve = parametric(parameters)
  const tags: readonly (readonly [string, Uint8Array])[] = [
    ['desc', text(label)],
    ['cprt', text('No copyright')],
    ['wtpt', xyz([D50])],
    ['chad', fixedArray(ADAPTED.flat())],
    ['rXYZ', xyz([red])],
    ['gXYZ', xyz([green])],
    ['bXYZ', xyz([blue])],
    ['rTRC', curve],
    ['gTRC', curve],
    ['bTRC', curve],
  ]
  const blocks = [...new Set(tags.map(([, block]) => block))]
  const first = HEAD + 4 + TAG_ENTRY * tags.length
  const starts = blocks.map((_, i) => blocks.slice(0, i).reduce((sum, { length }) => sum + length, first))
  const size = blocks.reduce((sum, { length }) => sum + length, first)
  const profile = new Uint8Array(size)
  const view = new DataView(profile.buffer)
  writeHead(profile, view)
  view.setUint32(HEAD, tags.length)
  tags.forEach(([name, block], i) => {
    const at = HEAD + 4 + TAG_ENTRY * i
    profile.set(letters(name), at)
    view.setUint32(at + 4, starts[blocks.indexOf(block)] ?? 0)
    view.setUint32(at + 8, block.length)
  })
  blocks.forEach((block, i) => profile.set(block, starts[i]))
  return profile
}

/** Version 4.3, a display, RGB to XYZ, made at a fixed time so that files stay the same, perceptual (ICC.1:2022, 7.2). */
function writeHead(profile: Uint8Array, view: DataView): void {
  view.setUint32(0, profile.length)
  view.setUint32(8, 0x04300000)
  profile.set(letters('mntrRGB XYZ '), 12)
  ;[2026, 1, 1, 0, 0, 0].forEach((value, i) => view.setUint16(24 + 2 * i, value))
  profile.set(letters('acsp'), 36)
  D50.forEach((value, i) => view.setInt32(68 + 4 * i, fixed(value)))
}

function letters(word: string): number[] {
  return [...word].map((letter) => letter.charCodeAt(0))
}

/** A number of 16 bits before and 16 behind the point. */
function fixed(value: number): number {
  return Math.round(value * 65536)
}

function block(type: string, bytes: number): { readonly data: Uint8Array; readonly view: DataView } {
  // Tags begin at multiples of four.
  const data = new Uint8Array(4 * Math.ceil(bytes / 4))
  data.set(letters(type))
  return { data, view: new DataView(data.buffer) }
}

function fixedBlock(type: string, values: readonly number[], from = 8): Uint8Array {
  const { data, view } = block(type, from + 4 * values.length)
  values.forEach((value, i) => view.setInt32(from + 4 * i, fixed(value)))
  return data
}

function xyz(triples: readonly Triple[]): Uint8Array {
  return fixedBlock('XYZ ', triples.flat())
}

function fixedArray(values: readonly number[]): Uint8Array {
  return fixedBlock('sf32', values)
}

function parametric(values: readonly number[]): Uint8Array {
  const data = fixedBlock('para', values, 12)
  // Function type 0 is an exponent alone.
  new DataView(data.buffer).setUint16(8, values.length === 1 ? 0 : 3)
  return data
}

/** Text in English, of two bytes a letter. */
function text(words: string): Uint8Array {
  const { data, view } = block('mluc', 28 + 2 * words.length)
  view.setUint32(8, 1)
  view.setUint32(12, 12)
  data.set(letters('enUS'), 16)
  view.setUint32(20, 2 * words.length)
  view.setUint32(24, 28)
  letters(words).forEach((letter, i) => view.setUint16(28 + 2 * i, letter))
  return data
}
