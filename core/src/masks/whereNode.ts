import type { GraphNode } from '../graph/node'
import type { Where } from '../model/look'
import { combineMasksNode, invertedNode } from '../operations/masks/combineMasks/combineMasks'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { followEdgesNode } from '../operations/masks/followEdges/followEdges'
import { holdMaskNode } from '../operations/masks/holdMask/holdMask'
import { morphologyNode } from '../operations/blurs/morphology/morphology'
import type { MaskContext } from './maskDefinition'
import { maskDefinitionOf, type Mask } from './registry'

/** The mask of a whole list, from top to bottom; undefined if nothing in it is on. */
export function whereNode(where: Where, context: MaskContext): GraphNode | undefined {
  if (where.hold === 0) return undefined
  const combined = where.masks.reduce<GraphNode | undefined>((above, mask) => {
    const node = mask.on ? singleMaskNode(mask, context) : undefined
    return node ? combineMasksNode(above, node, { join: mask.join, strength: mask.strength / 100 }) : above
  }, undefined)
  return combined && holdMaskNode(combined, where.hold / 100)
}

/** One mask of the list by itself: inverted, grown, moved to edges, feathered. Undefined if what it reads is not there. */
export function singleMaskNode(mask: Mask, context: MaskContext): GraphNode | undefined {
  const raw = maskDefinitionOf(mask.kind).node(mask, context)
  if (!raw) return undefined
  // White less the mask.
  const turned = mask.invert ? invertedNode(raw) : raw
  const moved = followEdgesNode(morphologyNode(turned, mask.grow), context.picture, mask.edges)
  return gaussianBlurNode(moved, mask.feather)
}

/** What is wrong with a mask, in a sentence for the person. */
export function maskProblem(mask: Mask, context: MaskContext): string | undefined {
  return maskDefinitionOf(mask.kind).problem?.(mask, context)
}
