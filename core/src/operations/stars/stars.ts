import { starTemperature } from '../../astronomy/stars'
import { chromaticityOf, linearRgbOf } from '../../colour/temperature'
import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation, RunContext } from '../../graph/operation'
import type { Rect } from '../../planes/rect'
import { inputAt, plane } from '../plane'

/** Stars of a sky. Lengths in photo px, angles in degrees counter-clockwise, parts 0-1. */
export type StarParameters = {
  readonly seed: number
  /** Side of the square that holds one star on average, where the sky is densest. */
  readonly spacing: number
  readonly faintest: number
  /** Stars of a magnitude against those of the one before. */
  readonly growth: number
  /** Magnitude of a star whose middle is just white. */
  readonly white: number
  readonly sigma: number
  readonly halo: number
  readonly spikes: number
  /** The galaxy: a place on its middle, its direction, its standard deviation, and how much denser the sky is there. */
  readonly band: { readonly x: number; readonly y: number; readonly turn: number; readonly width: number; readonly density: number }
  /** A place on the horizon and its slope, the magnitudes lost for each thickness of air, and the focal length in px. */
  readonly air: { readonly x: number; readonly y: number; readonly turn: number; readonly extinction: number; readonly focal: number }
  /** How far the stars went while the shutter was open, and about which place. */
  readonly trail: { readonly turn: number; readonly x: number; readonly y: number }
  readonly phase: number
  readonly twinkle: number
}

const RADIANS = Math.PI / 180

/** Colour indices of the stars that one sees, in 32 equally frequent steps: blue-white ones, sun-like ones, and orange giants (common practice, no source). */
const colourIndices = Array.from({ length: 32 }, (_, i) =>
  i < 12 ? -0.2 + 0.035 * i : i < 19 ? 0.3 + 0.06 * (i - 12) : 0.8 + 0.065 * (i - 19),
)

/** Linear colours of those steps, one behind the other. */
const starColourTable: Float32Array = Float32Array.from(
  colourIndices.flatMap((index) =>
    linearRgbOf(chromaticityOf(starTemperature(index))).map((value) => Math.fround(Number(value.toPrecision(6)))),
  ),
)

/** Addresses that stars are drawn on; 0 for what is not wanted. */
interface Canvas {
  readonly mean: number
  readonly squares: number
  readonly colours: readonly [number, number, number]
}

function draw({ kernels, grid, scratch }: RunContext, params: StarParameters, rect: Rect, { mean, squares, colours }: Canvas): void {
  const { band, air, trail } = params
  const table = scratch(starColourTable.byteLength)
  new Float32Array(kernels.memory.buffer, table, starColourTable.length).set(starColourTable)
  kernels.starCanvas(mean, squares, ...colours, rect.width, rect.height, rect.x, rect.y, grid.pitchX, grid.pitchY)
  kernels.starHorizon(air.x, air.y, -kernels.sine(air.turn * RADIANS), -kernels.cosine(air.turn * RADIANS))
  kernels.drawStars(
    ...([params.seed | 0, params.spacing, params.faintest, Number(Math.log(params.growth).toPrecision(7)), params.white] as const),
    ...([params.sigma, params.halo, params.spikes, band.x, band.y] as const),
    ...([kernels.sine(band.turn * RADIANS), kernels.cosine(band.turn * RADIANS), band.width, band.density] as const),
    ...([air.extinction, air.focal, trail.turn * RADIANS, trail.x, trail.y, params.phase, params.twinkle, table] as const),
  )
}

function emptyPlane({ kernels, plane: newPlane }: RunContext, count: number): number {
  const out = newPlane(count)
  kernels.fill(out, count, 0)
  return out
}

/** Stars as a field, encoded brightness 0-1, and at a reduced scale the variance inside each pixel. */
export const stars: Operation<StarParameters> = {
  name: 'stars',
  run(context, params, _inputs, rect) {
    const count = rect.width * rect.height
    const reduced = context.grid.pitchX > 1 || context.grid.pitchY > 1
    const mean = emptyPlane(context, count)
    const squares = reduced ? emptyPlane(context, count) : 0
    draw(context, params, rect, { mean, squares, colours: [0, 0, 0] })
    if (reduced) context.kernels.spreadFromSquares(mean, squares, count)
    return { kind: 'field', rect, planes: reduced ? [mean, squares] : [mean] }
  },
}

export function starsNode(params: StarParameters): GraphNode {
  return graphNode('stars', params)
}

type StarColourParameters = StarParameters & {
  /** How much of their own colour they show. */
  readonly saturation: number
  /** Linear colour of what is between the stars. */
  readonly between: readonly [number, number, number]
}

/** Colours of those stars as tones, each pixel that of the stars in it and of the glow between them. Input: the glow, a field. */
export const starColours: Operation<StarColourParameters> = {
  name: 'starColours',
  run(context, params, inputs, rect) {
    const count = rect.width * rect.height
    const { kernels, scratch } = context
    const mean = scratch(count * 4)
    kernels.fill(mean, count, 0)
    const planes = [0, 1, 2].map(() => emptyPlane(context, count)) as [number, number, number]
    draw(context, params, rect, { mean, squares: 0, colours: planes })
    planes.forEach((channel, index) => {
      const glow = plane(inputAt(inputs, 0), 0)
      kernels.ownColour(channel, mean, glow, params.between[index] ?? 1, params.saturation, count, channel)
      kernels.encodePlane(channel, channel, count)
    })
    return { kind: 'tones', rect, planes }
  },
}

export function starColoursNode(params: StarColourParameters, glow: GraphNode): GraphNode {
  return graphNode('starColours', params, [glow])
}
