import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { guidedFilterNode } from '../../blurs/guidedFilter/guidedFilter'
import { morphologyNode } from '../../blurs/morphology/morphology'
import { inputAt, plane } from '../../plane'

/** How far from halfway between the mask's local extremes the filtered mask is drawn to one of them. */
const HALF = 0.25

/** Contrast of a mask (input 0) between bounds that vary from pixel to pixel (inputs 1 and 2). */
export const contrastBetween: Operation = {
  name: 'contrastBetween',
  run(context, _params, inputs, rect) {
    const count = rect.width * rect.height
    const out = context.plane(count)
    const [filtered, least, most] = [0, 1, 2].map((index) => plane(inputAt(inputs, index), 0)) as [number, number, number]
    context.kernels.contrastBetween(filtered, least, most, count, HALF, out)
    return { kind: 'mask', rect, planes: [out] }
  },
}

/**
 * `mask` moved to the edges that `guide` has within `radius` photo px, or `mask` itself at 0. The guided filter (He, Sun and Tang 2010), run
 * twice, puts the step where the photo has it but leaves a haze beyond; contrast between the mask's own extremes nearby takes the haze away
 * and leaves flat parts of the mask at their level.
 */
export function followEdgesNode(mask: GraphNode, guide: GraphNode, radius: number): GraphNode {
  if (radius === 0) return mask
  const filtered = guidedFilterNode(guidedFilterNode(mask, guide, radius), guide, radius)
  return graphNode('contrastBetween', {}, [filtered, morphologyNode(mask, -radius, 'square'), morphologyNode(mask, radius, 'square')])
}
