import type { GraphNode } from '../graph/node'
import type { Groundwork } from '../model/groundwork'
import { frameOf, middleOf, type Frame } from '../model/frame'
import { placeNode } from '../operations/geometry/place/place'
import type { Size } from '../planes/grid'
import type { PictureSource } from './pictureSource'
import { sceneGraph, type Look } from './sceneGraph'

/** What is shown of the photo of a source. */
export function frameOfSource({ photo, groundwork }: { readonly photo: Size; readonly groundwork?: Groundwork | undefined }): Frame {
  return frameOf(photo, groundwork?.crop)
}

/** A look as it is seen in the frame: turned as the photo is. What lies within the frame of it is the picture. */
export function framedGraph(source: PictureSource, look?: Look): GraphNode {
  return turnedInFrame(sceneGraph(source, look), frameOfSource(source))
}

/** A picture of the photo turned as its frame says. */
export function turnedInFrame(node: GraphNode, frame: Frame): GraphNode {
  const { x: centreX, y: centreY } = middleOf(frame)
  return placeNode(node, { enlarge: 1, turn: frame.turn, moveX: 0, moveY: 0, centreX, centreY, sharp: true })
}
