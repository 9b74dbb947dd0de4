import type { Falling } from '../operations/falling'
import type { EffectScene } from './effectDefinition'

const MOST_ASLANT = 4

/**
 * The loop of a layer of falling points, `spacing` px apart, that fall by `angle` (degrees counter-clockwise from the x axis; 90 straight down): they come
 * round after `times` heights of the frame, so that nothing repeats within it.
 */
export function fallLoop(spacing: number, angle: number, scene: EffectScene, times = 1): Falling['loop'] {
  const rows = times * Math.max(2, Math.ceil((1.1 * scene.height) / spacing))
  const radians = (angle * Math.PI) / 180
  const aslant = -Math.cos(radians) / Math.max(1e-3, Math.sin(radians))
  return { rows, shift: Math.round(rows * Math.min(MOST_ASLANT, Math.max(-MOST_ASLANT, aslant))), phase: scene.phase }
}

interface Reach {
  readonly nearest: number
  readonly farthest: number
}

/** The distances of one of several layers, counted from far to near, each as deep as the others as a ratio. */
export function layerDistances({ nearest, farthest }: Reach, index: number, layers: number): { near: number; far: number } {
  const near = Math.max(0.01, Math.min(nearest, farthest))
  const ratio = Math.max(1, Math.max(nearest, farthest) / near)
  const at = (step: number): number => Number((near * Math.pow(ratio, step / layers)).toPrecision(7))
  return { near: at(layers - 1 - index), far: at(layers - index) }
}
