import type { GraphNode } from '../graph/node'
import { steady } from '../graph/steady'
import { percentControl } from '../model/controls'
import { assumedHorizon } from '../model/marks'
import { fieldAsMaskNode } from '../operations/fields/fieldAsMask/fieldAsMask'
import { lineMaskNode } from '../operations/masks/shapeMasks/lineMask'
import type { EffectScene } from './effectDefinition'

/** How high something lies over the horizon, and how it ends above. */
export const groundControls = {
  height: percentControl('Height', 'How high over the horizon it reaches, as part of the photo’s height.'),
  fallOff: percentControl('Fall-off', 'How gradually it ends above.'),
}

interface Ground {
  readonly height: number
  readonly fallOff: number
}

/** 1 on the ground, falling to 0 about a height above the horizon mark, or above the middle of the photo without one. */
export function groundProfile({ height, fallOff }: Ground, scene: EffectScene): GraphNode {
  const level = assumedHorizon(scene.marks, scene)
  // No horizon is to be seen: it thins over the whole height.
  if (!level)
    return fieldAsMaskNode(
      lineMaskNode({ x: 0, y: (1.3 - height / 100) * scene.height, toX: 0, toY: (-0.1 - height / 100) * scene.height }),
    )
  const soft = Math.max(0.02, fallOff / 100) * scene.height
  const top = level.y - (height / 100) * scene.height
  const radians = (level.turn * Math.PI) / 180
  const [x, dx, dy] = [scene.width / 2, steady((soft / 2) * Math.sin(radians)), steady((soft / 2) * Math.cos(radians))]
  return fieldAsMaskNode(lineMaskNode({ x: x + dx, y: top + dy, toX: x - dx, toY: top - dy }))
}
