import { rgbFromHex, type Rgb } from '../colour/hex'
import { definitionOf, type Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import { whereNode } from '../masks/whereNode'
import { constantTonesNode } from '../operations/constantTones/constantTones'
import { maskAsTonesNode } from '../operations/maskAsTones/maskAsTones'
import { mixNode } from '../operations/mix/mix'
import { photoNode } from '../operations/photo/photo'
import type { Size } from '../planes/grid'

/** The part of a scene that a picture depends on. */
export interface PictureSource {
  readonly photo: Size & { readonly id: string }
  readonly effects: readonly Effect[]
}

export const stepNames = ['pattern', 'shape', 'colour', 'where', 'mix'] as const
export type StepName = (typeof stepNames)[number]

/** What is looked at: the picture, the photo, one step of one effect, or what one effect alone contributes, on black. */
export type Look =
  | { readonly kind: 'result' }
  | { readonly kind: 'photo' }
  | { readonly kind: 'step'; readonly effectId: string; readonly step: StepName }
  | { readonly kind: 'alone'; readonly effectId: string }

/** Fields by the controls that they come from: an effect that did not change keeps its field as it is. */
const fields = new WeakMap<object, { readonly size: string; readonly node: GraphNode }>()

function shapedField({ kind, controls }: Effect, photo: Size): GraphNode {
  const size = `${kind} ${photo.width} ${photo.height}`
  const known = fields.get(controls)
  if (known?.size === size) return known.node
  const node = definitionOf(kind).shape(controls, photo)
  // Only a frozen object, such as those of the history, is sure to stay as it is.
  if (Object.isFrozen(controls)) fields.set(controls, { size, node })
  return node
}

const BLACK: Rgb = [0, 0, 0]
const WHITE: Rgb = [1, 1, 1]

/** The graph whose tones are what `look` shows. @throws Error if the effect is not in the scene */
export function sceneGraph(source: PictureSource, look: Look = { kind: 'result' }): GraphNode {
  const photo = photoNode(source.photo.id)
  if (look.kind === 'photo') return photo
  if (look.kind === 'result') return stackUpTo(source, source.effects.length)
  const index = source.effects.findIndex(({ id }) => id === look.effectId)
  const effect = source.effects[index]
  if (!effect) throw new Error(`There is no effect ${look.effectId} in this scene.`)
  const beneath = stackUpTo(source, index)
  if (look.kind === 'alone') return aloneNode(effect, source, beneath, rgbFromHex(effect.colour.tint), true)
  switch (look.step) {
    case 'pattern':
      return onBlack(definitionOf(effect.kind).pattern(effect.controls, source.photo), WHITE)
    case 'shape':
      return aloneNode(effect, source, beneath, WHITE, false)
    case 'colour':
      return aloneNode(effect, source, beneath, rgbFromHex(effect.colour.tint), false)
    case 'where': {
      const mask = whereNode(effect.where, photo, beneath)
      return mask ? maskAsTonesNode(mask) : constantTonesNode(WHITE)
    }
    case 'mix':
      return effectNode({ ...effect, on: true }, source, beneath)
  }
}

function stackUpTo(source: PictureSource, count: number): GraphNode {
  return source.effects.slice(0, count).reduce((beneath, effect) => effectNode(effect, source, beneath), photoNode(source.photo.id))
}

function effectNode(effect: Effect, source: PictureSource, beneath: GraphNode): GraphNode {
  if (!effect.on || effect.mix.amount === 0) return beneath
  const field = shapedField(effect, source.photo)
  const mask = whereNode(effect.where, photoNode(source.photo.id), beneath)
  return mixNode(beneath, field, mask, {
    mode: effect.mix.mode,
    amount: effect.mix.amount / 100,
    linear: effect.mix.linear,
    colour: rgbFromHex(effect.colour.tint),
  })
}

function aloneNode(effect: Effect, source: PictureSource, beneath: GraphNode, colour: Rgb, masked: boolean): GraphNode {
  const field = shapedField(effect, source.photo)
  const mask = masked ? whereNode(effect.where, photoNode(source.photo.id), beneath) : undefined
  return onBlack(field, colour, mask)
}

function onBlack(field: GraphNode, colour: Rgb, mask?: GraphNode): GraphNode {
  return mixNode(constantTonesNode(BLACK), field, mask, { mode: 'normal', amount: 1, linear: false, colour })
}
