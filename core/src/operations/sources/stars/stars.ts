import { starTemperature } from '../../../astronomy/stars'
import { chromaticityOf, linearRgbOf } from '../../../colour/temperature'
import { graphNode, type GraphNode } from '../../../graph/node'
import { steady } from '../../../graph/steady'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

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

/** All that is known of the stars, drawn once: brightness, its square, and brightness times linear red, green and blue. */
export const starLight: Operation<StarParameters> = {
  name: 'starLight',
  run({ kernels, grid, scratch, plane: newPlane }, params, _inputs, rect) {
    const count = rect.width * rect.height
    const { band, air, trail } = params
    const table = scratch(starColourTable.byteLength)
    new Float32Array(kernels.memory.buffer, table, starColourTable.length).set(starColourTable)
    const planes = [0, 1, 2, 3, 4].map(() => {
      const empty = newPlane(count)
      kernels.fill(empty, count, 0)
      return empty
    }) as [number, number, number, number, number]
    kernels.starCanvas(...planes, rect.width, rect.height, rect.x, rect.y, grid.pitchX, grid.pitchY)
    kernels.starHorizon(air.x, air.y, -kernels.sine(air.turn * RADIANS), -kernels.cosine(air.turn * RADIANS))
    kernels.drawStars(
      ...([params.seed | 0, params.spacing, params.faintest, steady(Math.log(params.growth)), params.white] as const),
      ...([params.sigma, params.halo, params.spikes, band.x, band.y] as const),
      ...([kernels.sine(band.turn * RADIANS), kernels.cosine(band.turn * RADIANS), band.width, band.density] as const),
      ...([air.extinction, air.focal, trail.turn * RADIANS, trail.x, trail.y, params.phase, params.twinkle, table] as const),
    )
    return { kind: 'parts', rect, planes }
  },
}

function starLightNode(params: StarParameters): GraphNode {
  return graphNode('starLight', params)
}

/** Stars as a field, encoded brightness 0-1, and at a reduced scale the variance inside each pixel. Input: their light. */
export const stars: Operation = {
  name: 'stars',
  run({ kernels, grid, plane: newPlane }, _params, inputs, rect) {
    const count = rect.width * rect.height
    const light = inputAt(inputs, 0)
    const mean = newPlane(count)
    kernels.scalePlane(plane(light, 0), count, 1, mean)
    if (grid.pitchX <= 1 && grid.pitchY <= 1) return { kind: 'field', rect, planes: [mean] }
    const spread = newPlane(count)
    kernels.scalePlane(plane(light, 1), count, 1, spread)
    kernels.spreadFromSquares(mean, spread, count)
    return { kind: 'field', rect, planes: [mean, spread] }
  },
}

export function starsNode(params: StarParameters): GraphNode {
  return graphNode('stars', {}, [starLightNode(params)])
}

interface StarPaint {
  /** How much of their own colour they show. */
  readonly saturation: number
  /** Linear colour of what is between the stars. */
  readonly between: readonly [number, number, number]
}

/** Colours of those stars as tones, each pixel that of the stars in it and of the glow between them. Inputs: their light; the glow, a field, if there is any. */
export const starColours: Operation<{ readonly saturation: number; readonly between: readonly number[] }> = {
  name: 'starColours',
  run({ kernels, plane: newPlane, scratch }, { saturation, between }, inputs, rect) {
    const count = rect.width * rect.height
    const light = inputAt(inputs, 0)
    const nothing = inputs[1] ? 0 : scratch(count * 4)
    if (nothing) kernels.fill(nothing, count, 0)
    const glow = inputs[1] ? plane(inputs[1], 0) : nothing
    const planes = [0, 1, 2].map((index) => {
      const channel = newPlane(count)
      kernels.ownColour(plane(light, 2 + index), plane(light, 0), glow, between[index] ?? 1, saturation, count, channel)
      kernels.encodePlane(channel, channel, count)
      return channel
    })
    return { kind: 'tones', rect, planes }
  },
}

export function starColoursNode(params: StarParameters, { saturation, between }: StarPaint, glow?: GraphNode): GraphNode {
  return graphNode('starColours', { saturation, between }, glow ? [starLightNode(params), glow] : [starLightNode(params)])
}
