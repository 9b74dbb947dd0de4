import type { EffectScene } from '../src/effects/effectDefinition'
import { noMarks, type SceneMarks } from '../src/model/marks'
import type { Size } from '../src/planes/grid'
import { photoNode } from '../src/operations/sources/photo/photo'
import { distanceNode } from '../src/render/sceneDepth'

/** A scene of a size without depth picture, for looking at patterns alone. */
export function effectScene({ width, height }: Size, marks: SceneMarks = noMarks): EffectScene {
  const distance = distanceNode({ width, height }, marks, null)
  const picture = photoNode('photo')
  return {
    width,
    height,
    frame: { x: 0, y: 0, width, height, turn: 0 },
    marks,
    distance,
    knownDistance: marks.horizon ? distance : undefined,
    working: 'srgb',
    phase: 0,
    picture,
    beneath: picture,
    region: undefined,
    otherEffect: () => undefined,
  }
}
