import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation } from '../../graph/operation'
import { writeMask } from '../shapeMasks/fall'
import { inputAt, plane } from '../plane'

type CodeParameters = {
  readonly near: 'white' | 'black'
  readonly nearDistance: number
  readonly farDistance: number
  readonly steps: 'distance' | 'inverse'
}

/** Distances in metres from a depth picture. */
export const distanceFromCodes: Operation<CodeParameters> = {
  name: 'distanceFromCodes',
  run(context, { near, nearDistance, farDistance, steps }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    const codes = plane(inputAt(inputs, 0), 0)
    context.kernels.distanceFromCodes(codes, count, near === 'white', nearDistance, farDistance, steps === 'inverse', out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function distanceFromCodesNode(picture: GraphNode, params: CodeParameters): GraphNode {
  return graphNode('distanceFromCodes', params, [picture])
}

type GroundParameters = {
  /** A place on the horizon, photo px, and its angle, degrees counter-clockwise. */
  readonly x: number
  readonly y: number
  readonly turn: number
  /** Height of the camera in metres times its focal length in px. */
  readonly heightInPixels: number
  /** What lies above the horizon, metres. */
  readonly far: number
}

/** Distances in metres of level ground seen under a horizon: height times focal length over the px below it. */
export const groundDistance: Operation<GroundParameters> = {
  name: 'groundDistance',
  run(context, { x, y, turn, heightInPixels, far }, _inputs, rect) {
    const { kernels } = context
    const radians = (turn * Math.PI) / 180
    const [nx, ny] = [kernels.sine(radians), kernels.cosine(radians)]
    return { ...writeMask(context, rect, (...at) => kernels.groundDistance(...at, x, y, nx, ny, heightInPixels, far)), kind: 'field' }
  },
}

export function groundDistanceNode(params: GroundParameters): GraphNode {
  return graphNode('groundDistance', params)
}
