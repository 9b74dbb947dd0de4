import type { GraphNode } from '../graph/node'
import type { DepthPicture } from '../model/depth'
import { assumedHorizon, type SceneMarks } from '../model/marks'
import type { SmallCodes } from '../model/reading'
import { FARTHEST, NEAREST } from '../model/readingMethod'
import { gaussianBlurNode } from '../operations/blurs/gaussianBlur/gaussianBlur'
import { guidedFilterNode } from '../operations/blurs/guidedFilter/guidedFilter'
import { darkestChannelNode, distanceFromHazeNode } from '../operations/distance/hazeDistance/hazeDistance'
import { morphologyNode } from '../operations/blurs/morphology/morphology'
import { outlineMaskNode } from '../operations/masks/outlineMask/outlineMask'
import { photoNode } from '../operations/sources/photo/photo'
import { distanceFromCodesNode, groundDistanceNode, layRegionNode } from '../operations/distance/sceneDistance/sceneDistance'
import { distanceFromStepsNode, smallCodesNode } from '../operations/distance/readDistance/readDistance'
import { growingCodes } from '../reading/readDistance'
import { focalPixels } from '../optics/lens'
import type { Size } from '../planes/grid'

const FAR = 20000
/** Windows of the haze estimate for 6 megapixels, px: He, Sun and Tang 2009 use 15 px for photos of a few hundred. */
const DARK_WINDOW = 40
const REFINE_WINDOW = 60

/** Whether a scene says anything about how far things are. */
export function knowsDistance(marks: SceneMarks, depth: DepthPicture | null | undefined): boolean {
  return Boolean(depth) || marks.horizon !== null || marks.haze !== null || marks.regions.length > 0 || Boolean(marks.reading?.distance)
}

/**
 * Distance in metres of everything in the photo. From its depth picture; or else estimated from the haze in it; or else that of level ground under the
 * horizon mark; or else as it was read from the photo, or growing from below to above. In scenes that are older than readings: level ground under the middle. Outlined regions lie over that, the later over the earlier.
 */
export function distanceNode(photo: Size & { readonly id?: string }, marks: SceneMarks, depth: DepthPicture | null | undefined): GraphNode {
  return marks.regions.reduce(
    (beneath, { corners, distance, softness }) => {
      const inside = gaussianBlurNode(outlineMaskNode([{ hole: false, corners }]), softness / 2)
      return layRegionNode(beneath, inside, distance)
    },
    baseDistance(photo, marks, depth),
  )
}

function baseDistance(photo: Size & { readonly id?: string }, marks: SceneMarks, depth: DepthPicture | null | undefined): GraphNode {
  if (depth) {
    const { near, nearDistance, farDistance, steps } = depth
    return distanceFromCodesNode(photoNode(depth.picture.id), { near, nearDistance, farDistance, steps })
  }
  if (marks.haze && photo.id !== undefined) return estimatedDistance({ ...photo, id: photo.id }, marks.haze)
  if (marks.reading?.distance && !marks.horizon) return readDistances(photo, marks.reading.distance)
  const level = assumedHorizon(marks, photo)
  if (!level) return growingNode
  const { cameraHeight, focalLength } = marks.ground
  const heightInPixels = cameraHeight * focalPixels(focalLength, photo.width)
  return groundDistanceNode({ x: photo.width / 2, y: level.y, turn: level.turn, heightInPixels, far: FAR })
}

const readRange = { near: NEAREST, far: FARTHEST }

/** Distances as they were read, along the edges of the photo. */
function readDistances(photo: Size & { readonly id?: string }, codes: SmallCodes): GraphNode {
  const small = smallCodesNode(codes)
  // Half a window of about two of its pixels.
  const radius = (1.5 * photo.width) / codes.width
  return distanceFromStepsNode(photo.id === undefined ? small : guidedFilterNode(small, photoNode(photo.id), radius), readRange)
}

/** From near below to far above, without a line. */
const growingNode = distanceFromStepsNode(smallCodesNode(growingCodes()), readRange)

/**
 * The dark channel prior (He, Sun and Tang 2009; from memory): without haze something near every place is nearly black in one channel, so that what
 * brightness is left there is that of the air before it. Refined along the edges of the photo by the guided filter (He, Sun and Tang 2010).
 */
function estimatedDistance(photo: Size & { readonly id: string }, haze: NonNullable<SceneMarks['haze']>): GraphNode {
  const picture = photoNode(photo.id)
  const factor = Math.sqrt((photo.width * photo.height) / 6e6)
  const dark = morphologyNode(darkestChannelNode(picture), -DARK_WINDOW * factor, 'square')
  const refined = guidedFilterNode(dark, picture, REFINE_WINDOW * factor)
  return distanceFromHazeNode(refined, { air: Math.max(0.01, haze.air / 100), visibility: haze.visibility, far: FAR })
}
