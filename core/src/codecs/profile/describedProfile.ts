import { matrixProfile } from '../../colour/colourSpace'
import { numberAt } from '../bytesAt'

type Place = readonly [x: number, y: number]

export interface Primaries {
  readonly red: Place
  readonly green: Place
  readonly blue: Place
  readonly white: Place
}

const D65: Place = [0.3127, 0.329]
const DCI_WHITE: Place = [0.314, 0.351]

/** Primaries by their number (ITU-T H.273, table 2). Those of BT.709, which are sRGB's, and what is not said are left out. */
const primariesOf: Readonly<Record<number, Primaries>> = {
  4: { red: [0.67, 0.33], green: [0.21, 0.71], blue: [0.14, 0.08], white: [0.31, 0.316] },
  5: { red: [0.64, 0.33], green: [0.29, 0.6], blue: [0.15, 0.06], white: D65 },
  6: { red: [0.63, 0.34], green: [0.31, 0.595], blue: [0.155, 0.07], white: D65 },
  7: { red: [0.63, 0.34], green: [0.31, 0.595], blue: [0.155, 0.07], white: D65 },
  9: { red: [0.708, 0.292], green: [0.17, 0.797], blue: [0.131, 0.046], white: D65 },
  11: { red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: DCI_WHITE },
  12: { red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: D65 },
}
const BT709: Primaries = { red: [0.64, 0.33], green: [0.3, 0.6], blue: [0.15, 0.06], white: D65 }

/** The curve of sRGB, as function type 3 of ICC.1:2022, 10.18. */
const SRGB = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045]
/** Curves by their number (ITU-T H.273, table 3). That of cameras (BT.709) is shown as sRGB's by browsers: common practice, no source. */
const curves: Readonly<Record<number, readonly number[]>> = { 4: [2.2], 5: [2.8], 8: [1] }
/** Curves for displays far brighter than white, which no curve of a profile holds. */
const HDR: readonly number[] = [16, 18]

/** How a file without a profile says what its codes are, in numbers. */
export interface Described {
  readonly primaries: Primaries | undefined
  readonly curve: readonly number[] | undefined
  readonly isHdr: boolean
}

/** A profile of what a file says of its colours without one; undefined where that is sRGB, or nothing. */
export function describedProfile(said: Described | undefined): Uint8Array | undefined {
  if (!said || (!said.primaries && !said.curve)) return undefined
  const { red, green, blue, white } = said.primaries ?? BT709
  return matrixProfile('what the file says', columnsOf(red, green, blue, white), said.curve ?? SRGB)
}

/** By numbers of primaries and transfer curve (ITU-T H.273). */
export function byNumbers(primaries: number, transfer: number): Described {
  return { primaries: primariesOf[primaries], curve: curves[transfer], isHdr: HDR.includes(transfer) }
}

/** By the power of the curve by which codes were made. 1 / 2.2 stands for the curve of sRGB, as writers of that have it: common practice, no source. */
export function byGamma(gamma: number | undefined, primaries: Primaries | undefined): Described {
  const curve = gamma !== undefined && gamma > 0.01 && Math.abs(gamma - 1 / 2.2) > 0.005 ? [1 / gamma] : undefined
  return { primaries, curve, isHdr: false }
}

/** White, red, green and blue as a PNG has them (W3C PNG, third edition, 11.3.2.1); undefined where they are those of sRGB, or cannot be. */
export function chromaticitiesAt(content: Uint8Array): Primaries | undefined {
  const place = (index: number): Place => [numberAt(content, 8 * index, 4) / 100_000, numberAt(content, 8 * index + 4, 4) / 100_000]
  const [white, red, green, blue] = [place(0), place(1), place(2), place(3)]
  const isUsual = [white, red, green, blue].every(([x, y], i) => {
    const [wantedX, wantedY] = [BT709.white, BT709.red, BT709.green, BT709.blue][i] ?? [0, 0]
    return Math.abs(x - wantedX) < 0.002 && Math.abs(y - wantedY) < 0.002
  })
  const isSound = [white, red, green, blue].every(([, y]) => y > 0)
  return isUsual || !isSound ? undefined : { white, red, green, blue }
}

type Triple = readonly [number, number, number]

const BRADFORD: readonly Triple[] = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
]
const D50: Triple = [0.9642, 1, 0.8249]

/** Red, green and blue of some primaries as XYZ of D50, adapted by the Bradford matrix (ICC.1:2022, annex E). */
function columnsOf(red: Place, green: Place, blue: Place, white: Place): Triple[] {
  const [r, g, b, w] = [red, green, blue, white].map(([x, y]): Triple => [x / y, 1, (1 - x - y) / y]) as [Triple, Triple, Triple, Triple]
  const amounts = solved([r, g, b], w)
  const [from, to] = [times(BRADFORD, w), times(BRADFORD, D50)]
  const adapted = ([x, y, z]: Triple): Triple => {
    const cone = times(BRADFORD, [x, y, z])
    return solvedRows(BRADFORD, cone.map((value, i) => (value * (to[i] ?? 1)) / (from[i] ?? 1)) as unknown as Triple)
  }
  return [r, g, b].map((colour, i) => adapted(colour.map((value) => value * (amounts[i] ?? 0)) as unknown as Triple))
}

function times(rows: readonly Triple[], [x, y, z]: Triple): Triple {
  return rows.map(([a, b, c]) => a * x + b * y + c * z) as unknown as Triple
}

/** How much of each of three columns gives a sum, by Cramer's rule. */
function solved([a, b, c]: readonly [Triple, Triple, Triple], sum: Triple): Triple {
  const whole = determinant(a, b, c)
  return [determinant(sum, b, c) / whole, determinant(a, sum, c) / whole, determinant(a, b, sum) / whole]
}

/** The same where a matrix is written by its rows. */
function solvedRows(rows: readonly Triple[], sum: Triple): Triple {
  const column = (k: 0 | 1 | 2): Triple => rows.map((row) => row[k]) as unknown as Triple
  return solved([column(0), column(1), column(2)], sum)
}

function determinant([a, b, c]: Triple, [d, e, f]: Triple, [g, h, i]: Triple): number {
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
}
