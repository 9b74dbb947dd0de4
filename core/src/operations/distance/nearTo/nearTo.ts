import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { inputAt, plane } from '../../plane'

type Place = {
  /** Photo px. */
  readonly x: number
  readonly y: number
}

type NearParameters = Place & {
  /** How quickly it weakens with the difference of steps. */
  readonly decline: number
}

/** How near everything is to the distance of one place, 1 there, as a field. Inputs: steps of distance; the same, smooth, to be read at the place. */
export const nearTo: Operation<NearParameters> = {
  name: 'nearTo',
  need({ x, y }, rect, { pitchX, pitchY, width, height }, _kernels, index) {
    if (index === 0) return rect
    const within = (at: number, size: number): number => Math.max(0, Math.min(size - 1, Math.floor(at)))
    return { x: within(x / pitchX, width), y: within(y / pitchY, height), width: 1, height: 1 }
  },
  run({ kernels, plane: newPlane }, { decline }, inputs, rect) {
    const count = rect.width * rect.height
    const [at = 0] = new Float32Array(kernels.memory.buffer, plane(inputAt(inputs, 1), 0), 1)
    const out = newPlane(count)
    kernels.nearTo(plane(inputAt(inputs, 0), 0), count, at, decline, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

const NEAR = 1
const FAR = 20000

/** Distances in metres as even steps of their logarithm: 1 at a metre and nearer, 0 at 20 km and farther. */
export const distanceSteps: Operation = {
  name: 'distanceSteps',
  run({ kernels, plane: newPlane }, _params, inputs, rect) {
    const count = rect.width * rect.height
    const out = newPlane(count)
    kernels.distanceSteps(plane(inputAt(inputs, 0), 0), count, NEAR, FAR, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

/** From the nearest to the farthest. */
const DOUBLINGS = Math.log2(FAR / NEAR)

/**
 * How near everything is to the distance of one place. At twice the distance, and at half of it, 1 / (1 + decline).
 * @param distance metres
 * @param about over how much around the place its distance is meant: sigma, photo px
 */
export function nearToNode(
  distance: GraphNode,
  { x, y, about, decline }: Place & { readonly about: number; readonly decline: number },
): GraphNode {
  const steps = graphNode('distanceSteps', {}, [distance])
  return graphNode('nearTo', { x, y, decline: decline * DOUBLINGS ** 2 }, [steps, gaussianBlurNode(steps, about)])
}
