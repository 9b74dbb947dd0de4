import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { Grid } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { loopNumbers, type Falling } from '../../falling'
import { plane } from '../../plane'

/** One layer of specks or streaks. Lengths in photo px, angles in degrees, parts 0-1. */
export type StreakLayer = Partial<Falling> & {
  readonly seed: number
  /** Side of the square that holds one point on average. */
  readonly spacing: number
  /** Standard deviation of the round speck. */
  readonly sigma: number
  /** Standard deviation of a Gaussian blur of the whole layer. */
  readonly blur: number
  /** Length of the smear; 0 leaves specks. */
  readonly length: number
  readonly lengthVariation: number
  /** Softness of the two ends, as part of the length. */
  readonly taper: number
  /** Counter-clockwise from the x axis. */
  readonly angle: number
  /** Greatest deviation from `angle`. */
  readonly bend: number
  /** Distance over which gusts change. */
  readonly gustScale: number
  readonly brightness: number
  readonly brightnessVariation: number
  readonly shiftX: number
  readonly shiftY: number
  /** Turns the layer counter-clockwise about its centre, the streaks with it. */
  readonly turn: number
  readonly centreX: number
  readonly centreY: number
  readonly band?: Band
}

/** A strip of the photo outside which a layer has nothing. Photo px. */
interface Band {
  /** The way across it, as a unit vector. */
  readonly x: number
  readonly y: number
  /** Along that way: from where it grows brighter, where it is brightest, and where it is gone again; null for never. */
  readonly from: number
  readonly full: number
  readonly to: number | null
  /** Heights between which all of it lies: elsewhere it is not looked for. */
  readonly rows: { readonly from: number; readonly to: number }
}

type StreakParameters = { readonly layers: readonly StreakLayer[] }

const RADIANS = Math.PI / 180

/**
 * Specks of a seeded lattice (a Poisson process, one cell one hash), each smeared along a line, blurred and placed, in layers that add up. The
 * lattice is fixed to the photo, so every tile and every scale sees the same drops. Doing that to each speck is the same
 * as doing it to their picture, and exact at every scale. Input, perhaps: the distance of the scene in metres, which hides what is behind.
 */
export const streaks: Operation<StreakParameters> = {
  name: 'streaks',
  run(context, { layers }, inputs, rect) {
    const { kernels, grid } = context
    // At full size a pixel is the finest there is: no variance inside it.
    const reduced = grid.pitchX > 1 || grid.pitchY > 1
    const planes = (reduced ? [0, 1] : [0]).map(() => {
      const count = rect.width * rect.height
      const out = context.plane(count)
      kernels.fill(out, count, 0)
      return out
    })
    for (const layer of layers) {
      const { skipped, height } = rowsOf(layer, rect, grid)
      const behind = 4 * skipped * rect.width
      const { x = 0, y = 0, from = 0, full = 0, to = null } = layer.band ?? {}
      if (height === 0) continue
      kernels.drawStreaks(
        ...([(planes[0] ?? 0) + behind, planes[1] ? planes[1] + behind : 0, rect.width, height] as const),
        ...([rect.x, rect.y + skipped, grid.pitchX, grid.pitchY] as const),
        ...([layer.seed | 0, layer.spacing, layer.sigma, layer.blur, layer.length, layer.lengthVariation, layer.taper] as const),
        ...([layer.angle * RADIANS, layer.bend * RADIANS, layer.gustScale] as const),
        ...([layer.brightness, layer.brightnessVariation, layer.shiftX, layer.shiftY] as const),
        ...([layer.turn * RADIANS, layer.centreX, layer.centreY] as const),
        ...loopNumbers(layer),
        ...([inputs[0] ? plane(inputs[0], 0) + behind : 0, layer.near ?? 1, layer.far ?? 1] as const),
        ...([x, y, from, full, to ?? Infinity] as const),
      )
    }
    return { kind: 'field', rect, planes }
  },
}

/** How many rows of a rectangle lie above those of a band, and how many of these there are. */
function rowsOf({ band }: StreakLayer, rect: Rect, grid: Grid): { readonly skipped: number; readonly height: number } {
  if (!band) return { skipped: 0, height: rect.height }
  const first = Math.max(rect.y, Math.floor(band.rows.from / grid.pitchY) - 1)
  const last = Math.min(rect.y + rect.height, Math.ceil(band.rows.to / grid.pitchY) + 1)
  return { skipped: Math.min(rect.height, first - rect.y), height: Math.max(0, last - first) }
}

/** @param distance of the scene in metres; drops between `near` and `far` are hidden by what is nearer */
export function streaksNode(layers: readonly StreakLayer[], distance?: GraphNode): GraphNode {
  return graphNode('streaks', { layers }, distance ? [distance] : [])
}
