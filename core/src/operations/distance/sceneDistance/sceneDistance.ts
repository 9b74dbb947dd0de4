import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { toneCurves } from '../../masks/luminosityMask/luminosityMask'
import { writeMask } from '../../masks/shapeMasks/fall'
import { inputAt, plane } from '../../plane'

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

/** A region at one distance (metres) laid over distances. Inputs: the distances, and the region as a mask; edges blend the inverses. */
export const layRegion: Operation<{ readonly distance: number }> = {
  name: 'layRegion',
  run(context, { distance }, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    context.kernels.layRegion(plane(inputAt(inputs, 0), 0), plane(inputAt(inputs, 1), 0), count, distance, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function layRegionNode(beneath: GraphNode, region: GraphNode, distance: number): GraphNode {
  return graphNode('layRegion', { distance }, [beneath, region])
}

type RangeParameters = {
  /** Metres: where the mask begins to open, is open, is still open, is shut again. */
  readonly from: number
  readonly near: number
  readonly far: number
  readonly to: number
}

/** Mask of what lies between two distances, falling smoothly in steps of 1 / distance. */
export const distanceRange: Operation<RangeParameters> = {
  name: 'distanceRange',
  run(context, { from, near, far, to }, inputs, rect) {
    const count = rect.width * rect.height
    const [inverse, out] = [context.scratch(count * 4), context.plane(count)]
    const { kernels } = context
    kernels.inversePlane(plane(inputAt(inputs, 0), 0), count, inverse)
    const handles = [to, far, near, from].map((metres) => 1 / Math.max(metres, 1e-4)) as [number, number, number, number]
    kernels.maskCurve(inverse, count, toneCurves.indexOf('range'), ...handles, 0, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function distanceRangeNode(distance: GraphNode, params: RangeParameters): GraphNode {
  return graphNode('distanceRange', params, [distance])
}

/** Nearest and farthest of the picture of distances, metres: white and black. */
export const PICTURED_FROM = 1
export const PICTURED_TO = 10000

/** Distances as a grey picture, each doubling one even step: white at 1 m, black at 10 km. */
export const distanceAsTones: Operation = {
  name: 'distanceAsTones',
  run(context, _params, inputs, rect) {
    const count = rect.width * rect.height
    const planes = [0, 1, 2].map(() => context.plane(count))
    for (const out of planes) context.kernels.distanceSteps(plane(inputAt(inputs, 0), 0), count, PICTURED_FROM, PICTURED_TO, out)
    return { kind: 'tones', rect, planes }
  },
}

export function distanceAsTonesNode(distance: GraphNode): GraphNode {
  return graphNode('distanceAsTones', {}, [distance])
}
