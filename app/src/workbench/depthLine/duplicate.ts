import type { Effect } from '@welkinar/core'
import { select, useScene } from '../../scene/sceneStore'

const TURNED = 23
const ENLARGED = 1.27

/** A copy right in front of the effect. It shares nothing that the eye could see twice: seed, turn and scale of its patterns and of its clouds are others. */
export function duplicate(effect: Effect): void {
  const copy = structuredClone(effect)
  copy.id = crypto.randomUUID()
  for (const mask of [...copy.where.masks, ...(copy.region?.masks ?? [])]) {
    mask.id = crypto.randomUUID()
    if (mask.kind === 'cloud') decorrelate(mask)
  }
  decorrelate(copy.controls.pattern)
  useScene.getState().change('Duplicate effect', (scene) => {
    scene.effects.splice(scene.effects.findIndex(({ id }) => id === effect.id) + 1, 0, copy)
  })
  select(copy.id)
}

interface Noise {
  seed?: number
  turn?: number
  scale?: number
}

function decorrelate(noise: Noise): void {
  if (noise.seed !== undefined) noise.seed = (noise.seed * 7 + 1231) % 10000
  if (noise.turn !== undefined) noise.turn = noise.turn > 180 - TURNED ? noise.turn - TURNED : noise.turn + TURNED
  if (noise.scale !== undefined) noise.scale = Math.min(100000, Math.round(noise.scale * ENLARGED))
}
