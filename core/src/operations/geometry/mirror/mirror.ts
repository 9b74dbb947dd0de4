import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { pitchOf } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'

export type MirrorParameters = {
  /** A place on the line that mirrors, photo px, and its slope, degrees counter-clockwise. */
  readonly x: number
  readonly y: number
  readonly turn: number
  /** How many times longer the mirrored picture is than what it mirrors. */
  readonly stretch: number
  /** How far ripples shift what is seen, px, and their length at the bottom of the photo; they shorten towards the line. */
  readonly ripple: number
  readonly rippleLength: number
  readonly seed: number
  /** 0-1: where in their loop the ripples are. */
  readonly phase: number
  /** px below the line after which it has faded to a third; 0 for never. */
  readonly fade: number
}

const RADIANS = Math.PI / 180

/** A field or tones mirrored about a line, below it, with ripples and a fade; nothing above the line. Tones keep their colours and do not fade. */
export const mirror: Operation<MirrorParameters> = {
  name: 'mirror',
  need(params, rect, grid, kernels) {
    const pitch = pitchOf(grid)
    const [sin, cos] = [kernels.sine(params.turn * RADIANS), kernels.cosine(params.turn * RADIANS)]
    // Corners of the rectangle, mirrored; ripples reach further.
    const corners = [0, 1].flatMap((i) =>
      [0, 1].map((j) => {
        const [x, y] = [(rect.x + i * rect.width) * grid.pitchX, (rect.y + j * rect.height) * grid.pitchY]
        const below = (x - params.x) * sin + (y - params.y) * cos
        const back = below * (1 + 1 / params.stretch)
        return [x - back * sin, y - back * cos] as const
      }),
    )
    const room = 3 + (2.2 * params.ripple) / pitch
    const xs = corners.map(([x]) => x / grid.pitchX)
    const ys = corners.map(([, y]) => y / grid.pitchY)
    const [left, top] = [Math.floor(Math.min(...xs) - room), Math.floor(Math.min(...ys) - room)]
    return { x: left, y: top, width: Math.ceil(Math.max(...xs) + room) - left, height: Math.ceil(Math.max(...ys) + room) - top }
  },
  run({ kernels, grid, plane }, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const from: Rect = input.rect
    const [sin, cos] = [kernels.sine(params.turn * RADIANS), kernels.cosine(params.turn * RADIANS)]
    const planes = input.planes.map((source, index) => {
      const out = plane(rect.width * rect.height)
      const power = input.kind === 'tones' ? 0 : index + 1
      kernels.mirrorPlane(
        ...([
          source,
          from.x,
          from.y,
          from.width,
          from.height,
          out,
          rect.x,
          rect.y,
          rect.width,
          rect.height,
          grid.pitchX,
          grid.pitchY,
        ] as const),
        ...([params.x, params.y, sin, cos, 1 / params.stretch, params.ripple, params.rippleLength, params.seed | 0] as const),
        ...([params.phase, params.fade, power] as const),
      )
      return out
    })
    return { kind: input.kind, rect, planes }
  },
}

export function mirrorNode(input: GraphNode, params: MirrorParameters): GraphNode {
  return graphNode('mirror', params, [input])
}
