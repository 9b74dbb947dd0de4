import type { Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { PictureSource } from './pictureSource'
import { StackBuilder } from './stackBuilder'

/** The effect that a node of a picture belongs to: the lowest one of the stack whose result needs it. Undefined if the bare photo does, or nothing. */
export function effectOfNode(source: PictureSource, key: string): Effect | undefined {
  const builder = StackBuilder.of(source)
  const seen = new Set<string>()
  const needs = (node: GraphNode): boolean => {
    if (seen.has(node.key)) return false
    seen.add(node.key)
    return node.key === key || node.inputs.some(needs)
  }
  return source.effects.filter(({ on }) => on).find((effect) => needs(builder.resultUpTo(effect)))
}
