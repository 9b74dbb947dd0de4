import {
  frameOfSource,
  NEUTRAL,
  newEffect,
  newMask,
  noMarks,
  type Effect,
  type EffectKind,
  type Mask,
  type Scene,
  type Size,
} from '@welkinar/core'
import { select, useScene, type EffectOf } from '../../scene/sceneStore'
import { insertEffect } from './moveEffect'

/** An ellipse on the photo, px. */
export interface EllipsePlace {
  readonly x: number
  readonly y: number
  readonly radiusX: number
  readonly radiusY: number
}

/** Two controls of a kind that one drag turns: sideways and up. */
interface Pulled {
  readonly across: Turned
  readonly up: Turned
}

interface Turned {
  readonly step: 'pattern' | 'shape'
  readonly name: string
  /** By a css px. */
  readonly by: number
  /** What values are rounded to. */
  readonly to: number
  readonly least: number
  readonly most: number
  inWords(value: number): string
}

const signed = (value: number, digits: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)}`

/** By kind; a third of a step of exposure over the width of a finger. */
export const pulled: Partial<Record<EffectKind, Pulled>> = {
  adjust: {
    across: { step: 'shape', name: 'warmth', by: 0.4, to: 1, least: -100, most: 100, inWords: (value) => `warmth ${signed(value, 0)}` },
    up: { step: 'pattern', name: 'exposure', by: 0.01, to: 0.05, least: -5, most: 5, inWords: (value) => `${signed(value, 2)} EV` },
  },
}

/** What a drag of some css px makes of a value. */
export function pulledTo({ by, to, least, most }: Turned, from: number, px: number): number {
  const value = Math.min(most, Math.max(least, Math.round((from + by * px) / to) * to))
  return Number(value.toFixed(4))
}

/** The value that a drag turns. */
export function valueOf(effect: Effect, { step, name }: Turned): number {
  return (effect.controls[step] as Record<string, unknown>)[name] as number
}

/** The ellipse of a correction that was made here: the only mask of a neutral start, or undefined. */
export function ellipseOf(effect: Effect | undefined): Extract<Mask, { kind: 'ellipse' }> | undefined {
  const [mask, ...more] = effect?.where.masks ?? []
  return mask?.kind === 'ellipse' && more.length === 0 && effect && pulled[effect.kind] ? mask : undefined
}

/** Adds a correction that changes nothing yet, only here, above what is selected and in its group, else in the finish. Returns whether it is there. */
export function correctHere(place: EllipsePlace): boolean {
  const { history, selectedId, change, set } = useScene.getState()
  if (!history) return false
  const made = correctionOf(history.scene, place)
  if (!change('Correct here', (scene) => insertAbove(scene, made, selectedId))) return false
  select(made.id)
  set({ tool: { kind: 'correct' }, openStep: undefined })
  return true
}

function correctionOf(scene: Scene, place: EllipsePlace): EffectOf<'adjust'> {
  const { photo, marks = noMarks } = scene
  const made = newEffect(photo, { kind: 'adjust', look: NEUTRAL, id: crypto.randomUUID(), marks, frame: frameOfSource(scene) })
  if (made.kind !== 'adjust') throw new Error('Another kind was made.')
  const mask = newMask(photo, { kind: 'ellipse', id: crypto.randomUUID(), join: 'keep', marks: noMarks })
  made.where.masks = [Object.assign(mask, { ...place, turn: 0, follows: null })]
  return made
}

/** Puts an effect right above another, at its place and in its group; without one where it usually lies. */
export function insertAbove(scene: Scene, effect: Effect, above: string | undefined): void {
  const at = scene.effects.findIndex(({ id }) => id === above)
  const below = scene.effects[at]
  if (!below) return insertEffect(scene, effect)
  scene.effects.splice(at + 1, 0, Object.assign(effect, { place: below.place, group: below.group }))
}

/** The ellipse that a drag from one corner to the other makes; undefined for one that is next to nothing. @param least photo px */
export function ellipseBetween(
  from: { readonly x: number; readonly y: number },
  to: { readonly x: number; readonly y: number },
  { round, least }: { readonly round: boolean; readonly least: number },
): EllipsePlace | undefined {
  const [wide, high] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  if (Math.max(wide, high) < least) return undefined
  const side = Math.max(wide, high)
  // A drag along one line is meant as something round too.
  const flat = 0.2 * side
  const [width, height] = round ? [side, side] : [Math.max(wide, flat), Math.max(high, flat)]
  const middle = (a: number, b: number, length: number): number => a + (Math.sign(b - a) * length) / 2
  return { x: middle(from.x, to.x, width), y: middle(from.y, to.y, height), radiusX: width / 2, radiusY: height / 2 }
}

/** An ellipse in the middle of what is seen of a photo, for keys. */
export function ellipseInTheMiddle(middle: { readonly x: number; readonly y: number }, { width, height }: Size): EllipsePlace {
  const radius = 0.12 * Math.min(width, height)
  return { ...middle, radiusX: radius, radiusY: radius }
}
