import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { pitchOf, type Grid } from '../../../planes/grid'
import { expand, type Rect } from '../../../planes/rect'
import type { Value } from '../../../planes/value'
import { inputAt, plane } from '../../plane'

export type NoiseParameters = {
  /** Standard deviation of the noise of luma that is taken out, sRGB-encoded, at full size; 0 leaves it. */
  readonly luminance: number
  /** The same of the colours, less luma. */
  readonly colour: number
}

/**
 * Steps to each side in which like neighbourhoods are looked for, px of a step (the noise of colours lies in larger spots), and width of the weights against the noise. Set by measuring on photographs with noise of a
 * known strength.
 */
const LUMINANCE = { reach: 3, step: 1, width: 0.5 }
const COLOUR = { reach: 2, step: 3, width: 1.6 }

/**
 * Takes noise out of tones by non-local means (Buades, Coll and Morel 2005), luma and colours by themselves: what has like neighbourhoods is averaged, so that edges and single stars stay. A reduced picture
 * has less noise by the pitch, so less is taken out of it.
 */
export const takeNoise: Operation<NoiseParameters> = {
  name: 'takeNoise',
  isStage: true,
  need: (params, rect) => expand(rect, marginOf(params)),
  run(context, params, inputs, rect) {
    const { kernels, scratch } = context
    const margin = marginOf(params)
    const wide = expand(rect, margin)
    const [luma, blue, red] = threePlanes(() => scratch(bytesOf(wide)))
    extendTones(context, inputAt(inputs, 0), wide, [luma, blue, red])
    kernels.lumaChroma(luma, blue, red, wide.width * wide.height, luma, blue, red)
    const clean = threePlanes(() => scratch(bytesOf(rect)))
    const cut = (source: number, to: number): void =>
      kernels.copyExtended(source, wide.width, wide.height, margin, margin, to, rect.width, rect.height)
    if (params.luminance > 0) {
      const { bias, scale } = weights(params.luminance, LUMINANCE.width, 1, context.grid)
      const work = scratch(workBytes(rect))
      kernels.nonLocalMeans(
        luma,
        0,
        0,
        luma,
        0,
        margin,
        rect.width,
        rect.height,
        LUMINANCE.reach,
        LUMINANCE.step,
        bias,
        scale,
        clean[0],
        0,
        work,
      )
    } else cut(luma, clean[0])
    if (params.colour > 0) {
      const { bias, scale } = weights(params.colour, COLOUR.width, 3, context.grid)
      const work = scratch(workBytes(rect))
      kernels.nonLocalMeans(
        ...([luma, blue, red, blue, red, margin, rect.width, rect.height] as const),
        ...([COLOUR.reach, COLOUR.step, bias, scale, clean[1], clean[2], work] as const),
      )
    } else {
      cut(blue, clean[1])
      cut(red, clean[2])
    }
    const planes = threePlanes(() => context.plane(rect.width * rect.height))
    kernels.fromLumaChroma(...clean, rect.width * rect.height, ...planes)
    return { kind: 'tones', rect, planes }
  },
}

/** Twice the variance of the noise is what even surfaces differ by; how much more counts goes by its width. A reduced picture has less noise, by the pitch. */
function weights(sigma: number, width: number, guides: number, grid: Grid): { readonly bias: number; readonly scale: number } {
  const noise = sigma / pitchOf(grid)
  return { bias: 2 * noise * noise * guides, scale: 1 / (width * width * noise * noise * guides) }
}

/** `tones` with less noise, or `tones` itself if none is to be taken out. */
export function takeNoiseNode(tones: GraphNode, params: NoiseParameters): GraphNode {
  return params.luminance > 0 || params.colour > 0 ? graphNode('takeNoise', params, [tones]) : tones
}

/** Kernels read and write up to four floats beyond a plane. */
const SLACK = 64

function bytesOf({ width, height }: Rect): number {
  return 4 * width * height + SLACK
}

function workBytes({ width }: Rect): number {
  return 4 * 4 * (width + 8) + SLACK
}

type Three = [number, number, number]

function threePlanes(make: () => number): Three {
  return [make(), make(), make()]
}

function marginOf({ colour }: NoiseParameters): number {
  const { reach, step } = colour > 0 ? COLOUR : LUMINANCE
  return reach * step + 1
}

function extendTones({ kernels }: RunContext, tones: Value, to: Rect, out: Three): void {
  const { rect } = tones
  out.forEach((address, channel) =>
    kernels.copyExtended(plane(tones, channel), rect.width, rect.height, to.x - rect.x, to.y - rect.y, address, to.width, to.height),
  )
}
