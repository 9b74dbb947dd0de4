import type { GraphNode } from '../graph/node'
import type { Mask, Where } from '../model/look'
import { combineMasksNode } from '../operations/combineMasks/combineMasks'
import { gaussianBlurNode } from '../operations/gaussianBlur/gaussianBlur'
import { holdMaskNode } from '../operations/holdMask/holdMask'
import { luminosityMaskNode } from '../operations/luminosityMask/luminosityMask'

/** The mask of a whole list, from top to bottom; undefined if nothing in it is on. */
export function whereNode(where: Where, photo: GraphNode, beneath: GraphNode): GraphNode | undefined {
  const masks = where.masks.filter((mask) => mask.on)
  if (masks.length === 0 || where.hold === 0) return undefined
  const combined = masks.reduce<GraphNode | undefined>(
    (above, mask) => combineMasksNode(above, singleMaskNode(mask, photo, beneath), { join: mask.join, strength: mask.strength / 100 }),
    undefined,
  )
  return combined && holdMaskNode(combined, where.hold / 100)
}

/** One mask of the list, feathered. */
function singleMaskNode(mask: Mask, photo: GraphNode, beneath: GraphNode): GraphNode {
  const tones = mask.tonesFrom === 'photo' ? photo : beneath
  const { channel, curve, handles, steepness, invert } = mask
  return gaussianBlurNode(luminosityMaskNode(tones, { channel, curve, handles, steepness, invert }), mask.feather)
}
