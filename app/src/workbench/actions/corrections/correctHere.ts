import {
  definitionOf,
  effectDefinitions,
  frameOfSource,
  NEUTRAL,
  newEffect,
  newMask,
  noMarks,
  writePath,
  type Effect,
  type EffectKind,
  type MaskListRef,
  type PictureSource,
  type Scene,
  type Size,
} from '@welkinar/core'
import { select, useScene } from '../../../scene/sceneStore'
import { insertEffect } from '../moveEffect'
import { startingEffect } from '../startingControls'
import { correctionShapes, middleOfShape, type Drawn, type ShapeMask } from './shapes'

/** Kinds that begin with something else than a place: a picture, a line, another effect. */
const NOT_BY_A_PLACE: readonly EffectKind[] = ['overlay', 'glowLine', 'reflection']

const atAPlace = effectDefinitions.filter(({ kind }) => !NOT_BY_A_PLACE.includes(kind))

/** The kinds that can be made at a place of the photo: first those that correct, then weather and light. */
export const correctionKinds: readonly EffectKind[] = [
  ...atAPlace.filter(({ neutral }) => neutral),
  ...atAPlace.filter(({ neutral }) => !neutral),
].map(({ kind }) => kind)

/** Whether the shape of a correction of a kind is what it is drawn in, and not only what confines it. */
function isRegional(kind: EffectKind): boolean {
  return definitionOf(kind).region?.step === 'pattern'
}

/** A correction: the effect, with the one mask that was drawn for it. */
export interface Correction {
  readonly effect: Effect
  readonly list: MaskListRef
  readonly mask: ShapeMask
}

/** The selected effect as a correction, if it is one: it has one mask, of a shape that the hand draws. */
export function correctionOf(effect: Effect | undefined): Correction | undefined {
  if (!effect || !correctionKinds.includes(effect.kind)) return undefined
  const list = isRegional(effect.kind) ? 'region' : 'where'
  const [mask, ...more] = effect[list]?.masks ?? []
  if (!mask || more.length > 0 || !isShape(mask)) return undefined
  return { effect, list: { owner: effect.id, list }, mask }
}

function isShape(mask: { readonly kind: string }): mask is ShapeMask {
  return (correctionShapes as readonly string[]).includes(mask.kind)
}

/** Whether an effect is still as its neutral look is: it changes nothing. */
export function isNeutral(effect: Effect, photo: Size): boolean {
  if (effect.look !== NEUTRAL) return false
  const { controls, mix } = startingEffect(effect, photo)
  return JSON.stringify([effect.controls, effect.mix]) === JSON.stringify([controls, mix])
}

/** What is set of a new correction beside its shape, by the path of a control. */
export type Beginning = Readonly<Record<string, number>>

/**
 * Adds an effect at a place of the photo: neutral if its kind has that, only in the shape that was drawn, above what is selected and in its group, else where it usually lies.
 * Returns whether it is there.
 */
export function correctHere(kind: EffectKind, drawn: Drawn, beginning: Beginning = {}): boolean {
  const { history, selectedId, change, set, tool } = useScene.getState()
  if (!history) return false
  const made = newCorrection(history.scene, kind, drawn, beginning)
  if (!change('Correct here', (scene) => insertAbove(scene, made, selectedId))) return false
  select(made.id)
  set({ tool, openStep: undefined })
  return true
}

/** A correction of a kind in a shape. Where the kind has a place of its own, that is the middle of the shape. */
export function newCorrection(scene: PictureSource, kind: EffectKind, drawn: Drawn, beginning: Beginning = {}): Effect {
  const { photo, marks = noMarks } = scene
  const { neutral, places = [] } = definitionOf(kind)
  const look = neutral ? { look: NEUTRAL } : {}
  const made = newEffect(photo, { kind, ...look, id: crypto.randomUUID(), marks, frame: frameOfSource(scene) })
  const begun = newMask(photo, { kind: drawn.kind, id: crypto.randomUUID(), join: 'keep', marks: noMarks })
  const mask = Object.assign(begun, drawn) as ShapeMask
  const masks = { masks: [mask], hold: 100 }
  if (isRegional(kind)) made.region = masks
  else made.where = masks
  const middle = middleOfShape(mask, scene)
  const [own] = places
  if (middle && own?.follows) {
    writePath(made.controls, own.x, Math.round(middle.x))
    writePath(made.controls, own.y, Math.round(middle.y))
    writePath(made.controls, own.follows, null)
  }
  for (const [path, value] of Object.entries(beginning)) writePath(made.controls, path, value)
  return made
}

/** Puts an effect right above another, at its place and in its group; without one where it usually lies. */
export function insertAbove(scene: Scene, effect: Effect, above: string | undefined): void {
  const at = scene.effects.findIndex(({ id }) => id === above)
  const below = scene.effects[at]
  if (!below) return insertEffect(scene, effect)
  scene.effects.splice(at + 1, 0, Object.assign(effect, { place: below.place, group: below.group }))
}
