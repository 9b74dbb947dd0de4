import { newEffect } from '../src/effects/newEffect'
import { definitionOf, type Effect, type EffectKind } from '../src/effects/registry'
import type { Evaluator } from '../src/graph/evaluator'
import { noMarks, type SceneMarks } from '../src/model/marks'
import type { Size } from '../src/planes/grid'
import { sceneGraph } from '../src/render/sceneGraph'
import { effectScene } from './effectScene'
import { planeOf } from './masks'
import { renderAll } from './pictures'

/** An effect as a look begins, with some of its values set. */
export function effectOf(size: Size, kind: EffectKind, look: string, pattern: object, shape: object = {}): Effect {
  const effect = newEffect(size, { kind, look, id: 'e' })
  Object.assign(effect.controls.pattern, pattern)
  Object.assign(effect.controls.shape, shape)
  return effect
}

/** RGBA of a photo, called `photo`, with one effect. */
export function pictureOf(evaluator: Evaluator, size: Size, effect: Effect): Uint8ClampedArray {
  return renderAll(evaluator, sceneGraph({ photo: { id: 'photo', ...size }, effects: [effect] }), size).pixels
}

/** The field of an effect over the whole photo, before Where and Mix. */
export function fieldOf(evaluator: Evaluator, size: Size, effect: Effect, marks: SceneMarks = noMarks): Float32Array {
  return planeOf(evaluator, definitionOf(effect.kind).contribute(effect.controls as never, effectScene(size, marks), [1, 1, 1]).field, size)
}

/** Of all values, or of those at some places. */
export function sumOf(values: Float32Array, { width }: Size, is: (x: number, y: number) => boolean = () => true): number {
  return values.reduce((all, value, i) => all + (is(i % width, Math.floor(i / width)) ? value : 0), 0)
}
