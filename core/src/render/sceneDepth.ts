import type { GraphNode } from '../graph/node'
import { depthCode, type DepthPicture } from '../model/depth'
import type { SceneMarks } from '../model/marks'
import { photoNode } from '../operations/photo/photo'
import { distanceFromCodesNode, groundDistanceNode } from '../operations/sceneDistance/sceneDistance'
import type { Size } from '../planes/grid'

/** A standing person's eye, metres. */
const CAMERA_HEIGHT = 1.7
/** Focal length of a common wide view, as a part of the width of the frame: 28 mm on 36 mm. */
const FOCAL_LENGTH = 28 / 36
const FAR = 20000

/** The depth picture of a scene, for masks. */
export function depthPictureSource(depth: DepthPicture): { readonly node: GraphNode; codeAt(metres: number): number } {
  return { node: photoNode(depth.picture.id), codeAt: (metres) => depthCode(depth, metres) }
}

/**
 * Distance in metres of everything in the photo: from its depth picture, or else that of level ground under the horizon mark, and without a mark
 * under the middle of the photo.
 */
export function distanceNode(photo: Size, marks: SceneMarks, depth: DepthPicture | null | undefined): GraphNode {
  if (depth) {
    const { near, nearDistance, farDistance, steps } = depth
    return distanceFromCodesNode(photoNode(depth.picture.id), { near, nearDistance, farDistance, steps })
  }
  const level = marks.horizon ?? { y: photo.height / 2, turn: 0 }
  const heightInPixels = CAMERA_HEIGHT * FOCAL_LENGTH * photo.width
  return groundDistanceNode({ x: photo.width / 2, y: level.y, turn: level.turn, heightInPixels, far: FAR })
}
