import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { SmallCodes } from '../../../model/reading'
import { enlargePlane } from '../../../planes/enlarge'
import { inputAt, plane } from '../../plane'

/** A small picture of codes over the whole photo, as a mask of 0-1, enlarged by a cubic. */
export const smallCodes: Operation<SmallCodes> = {
  name: 'smallCodes',
  run({ kernels, grid, scratch, plane: newPlane }, { width, height, codes }, _inputs, rect) {
    const count = rect.width * rect.height
    const source = scratch(width * height * 4)
    const bytes = atob(codes)
    new Float32Array(kernels.memory.buffer, source, width * height).forEach((_, i, all) => (all[i] = bytes.charCodeAt(i) / 255))
    const out = newPlane(count)
    const steps = { x: width / grid.width, y: height / grid.height }
    enlargePlane(kernels, scratch, source, { x: 0, y: 0, width, height }, rect, steps, out)
    kernels.atLeastZero(out, count)
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function smallCodesNode(codes: SmallCodes): GraphNode {
  return graphNode('smallCodes', codes)
}

/** Distances of 0 and of 1, metres. */
type StepParameters = { readonly near: number; readonly far: number }

/** Distances in metres from a mask of even steps of their logarithm. */
export const distanceFromSteps: Operation<StepParameters> = {
  name: 'distanceFromSteps',
  run({ kernels, plane: newPlane }, { near, far }, inputs, rect) {
    const count = rect.width * rect.height
    const out = newPlane(count)
    kernels.distanceFromSteps(plane(inputAt(inputs, 0), 0), count, near, far, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

export function distanceFromStepsNode(steps: GraphNode, params: StepParameters): GraphNode {
  return graphNode('distanceFromSteps', params, [steps])
}
