import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** A lamp over the picture, which is taken as a level surface. Photo px and degrees. */
export type LampParameters = {
  readonly x: number
  readonly y: number
  /** How far in front of the picture the lamp is. */
  readonly height: number
  /** Where it shines. */
  readonly toX: number
  readonly toY: number
  /** Half angles of the cone: full within the first, nothing beyond the second. */
  readonly inner: number
  readonly outer: number
  /** 0-1: how much it falls with the square of the distance. */
  readonly falloff: number
}

/** How much of a lamp falls on each place, as a field: 1 where it is aimed. The cone is that of feSpotLight, W3C Filter Effects Module Level 1. */
export const lampField: Operation<LampParameters> = {
  name: 'lampField',
  run({ kernels, grid, plane: newPlane }, { x, y, height, toX, toY, inner, outer, falloff }, _inputs, rect) {
    const out = newPlane(rect.width * rect.height)
    const cosine = (degrees: number): number => kernels.cosine((degrees * Math.PI) / 180)
    const [full, none] = [cosine(Math.min(inner, outer)), cosine(Math.max(inner, outer))]
    kernels.lampField(
      ...([out, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const),
      ...([x, y, Math.max(1, height), toX, toY, full, none, falloff] as const),
    )
    return { kind: 'field', rect, planes: [out] }
  },
}

export function lampFieldNode(params: LampParameters): GraphNode {
  return graphNode('lampField', params)
}

type LitParameters = {
  /** 0-1: light that is there without the lamp. */
  readonly ambient: number
  readonly strength: number
  /** Linear. */
  readonly colour: Rgb
  readonly sheen: number
  readonly sharpness: number
  /** Of the sheen, linear. */
  readonly sheenColour: Rgb
}

/** Tones lit by a lamp, in linear light. Inputs: tones; how much of the lamp falls on each place. */
export const litByLamp: Operation<LitParameters> = {
  name: 'litByLamp',
  run(context, { ambient, strength, colour, sheen, sharpness, sheenColour }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const planes = [plane(tones, 0), plane(tones, 1), plane(tones, 2)] as const
    const field = plane(inputAt(inputs, 1), 0)
    context.kernels.litByLamp(...planes, field, count, ambient, strength, ...colour, sheen, sharpness, ...sheenColour, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

export function litByLampNode(tones: GraphNode, light: GraphNode, params: LitParameters): GraphNode {
  return graphNode('litByLamp', params, [tones, light])
}
