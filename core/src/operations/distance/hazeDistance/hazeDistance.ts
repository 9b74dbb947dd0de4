import { METEOROLOGICAL_RANGE } from '../../../colour/visibility'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** The darkest of the three channels of tones in linear light, as a mask. */
export const darkestChannel: Operation = {
  name: 'darkestChannel',
  run(context, _params, inputs, rect) {
    const tones = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.darkestChannel(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, out)
    context.kernels.decodePlane(out, out, count)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function darkestChannelNode(tones: GraphNode): GraphNode {
  return graphNode('darkestChannel', {}, [tones])
}

type HazeParameters = {
  /** Brightness of the air where it hides everything, linear 0-1. */
  readonly air: number
  /** Meteorological optical range, metres. */
  readonly visibility: number
  /** What lies behind air without end, metres. */
  readonly far: number
}

/** Part of the darkness that is taken for air: a little is left, so that far things keep some contrast (He, Sun and Tang 2009). */
const TAKEN = 0.95

/** Distances in metres from the brightness that air adds: air (1 - e^(-extinction d)), solved for d. */
export const distanceFromHaze: Operation<HazeParameters> = {
  name: 'distanceFromHaze',
  run(context, { air, visibility, far }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.distanceFromHaze(plane(inputAt(inputs, 0), 0), count, TAKEN / air, visibility / METEOROLOGICAL_RANGE, far, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function distanceFromHazeNode(added: GraphNode, params: HazeParameters): GraphNode {
  return graphNode('distanceFromHaze', params, [added])
}
