import type { Rgb } from '../colour/hex'
import { definitionOf } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { MaskContext } from '../masks/maskDefinition'
import { singleMaskNode, whereNode } from '../masks/whereNode'
import type { Where } from '../model/look'
import { constantTonesNode } from '../operations/constantTones/constantTones'
import { differenceNode } from '../operations/difference/difference'
import { maskAsTonesNode } from '../operations/maskAsTones/maskAsTones'
import { mixNode } from '../operations/mix/mix'
import { distanceAsTonesNode } from '../operations/sceneDistance/sceneDistance'
import { photoNode } from '../operations/photo/photo'
import { insideOfGroup, isEffect, ownerOf, type Owner, type PictureSource } from './pictureSource'
import { StackBuilder } from './stackBuilder'

export const stepNames = ['pattern', 'shape', 'colour', 'where', 'mix'] as const
export type StepName = (typeof stepNames)[number]

/**
 * What is looked at: the picture, the photo, its distances as grey, what lies beneath an effect or group, one step of it, one mask of its list, or what one effect alone contributes, on
 * black. The picture can show one effect or group at several times its strength.
 */
export type Look =
  | { readonly kind: 'result'; readonly exaggerated?: string | undefined }
  | { readonly kind: 'photo' }
  | { readonly kind: 'distance' }
  | { readonly kind: 'step'; readonly effectId: string; readonly step: StepName }
  | { readonly kind: 'beneath'; readonly effectId: string }
  | { readonly kind: 'mask'; readonly effectId: string; readonly maskId: string }
  | { readonly kind: 'alone'; readonly effectId: string }

/** How many times its strength an exaggerated effect shows. */
export const EXAGGERATION = 3

const WHITE: Rgb = [1, 1, 1]
const BLACK: Rgb = [0, 0, 0]

/** The graph whose tones are what `look` shows. @throws Error if the effect or group is not in the scene */
export function sceneGraph(source: PictureSource, look: Look = { kind: 'result' }): GraphNode {
  if (look.kind === 'photo') return photoNode(source.photo.id)
  const builder = new StackBuilder(source)
  if (look.kind === 'distance') return distanceAsTonesNode(builder.distance)
  if (look.kind === 'result') return builder.result(look.exaggerated ? { id: look.exaggerated, times: EXAGGERATION } : undefined)
  const owner = ownerOf(source, look.effectId)
  const context = builder.contextOf(owner)
  if (look.kind === 'beneath') return context.beneath
  if (look.kind === 'mask') {
    const mask = owner.where.masks.find(({ id }) => id === look.maskId)
    return maskPicture(mask && singleMaskNode(mask, context))
  }
  if (look.kind === 'alone') return aloneNode(builder, owner, context, true)
  if (look.step === 'where') return maskPicture(whereNode(owner.where, context))
  if (look.step === 'mix') return builder.resultUpTo(owner)
  if (!isEffect(owner)) return aloneNode(builder, owner, context, false)
  if (look.step === 'pattern') return onBlack(definitionOf(owner.kind).pattern(owner.controls, builder.sceneOf(owner)), WHITE)
  if (look.step === 'shape') return onBlack(builder.field(owner), WHITE)
  return aloneNode(builder, owner, context, false)
}

/** Everything beneath an effect or group, and what its masks may read. @throws Error if it is not in the scene */
export function maskContext(source: PictureSource, ownerId: string): MaskContext {
  return new StackBuilder(source).contextOf(ownerOf(source, ownerId))
}

function maskPicture(mask: GraphNode | undefined): GraphNode {
  return mask ? maskAsTonesNode(mask) : constantTonesNode(WHITE)
}

function aloneNode(builder: StackBuilder, owner: Owner, context: MaskContext, masked: boolean): GraphNode {
  if (!isEffect(owner)) return builder.onBlack(insideOfGroup(builder.source, owner.id), masked ? owner : undefined)
  if (definitionOf(owner.kind).corrects) {
    const where = masked ? owner.where : { masks: [], hold: 100 }
    return differenceNode(builder.resultUpTo({ ...owner, where }), context.beneath, false)
  }
  return builder.drawn(owner, maskOf(owner.where, context, masked))
}

function maskOf(where: Where, context: MaskContext, masked: boolean): GraphNode | undefined {
  return masked ? whereNode(where, context) : undefined
}

function onBlack(field: GraphNode, colour: Rgb): GraphNode {
  return mixNode(constantTonesNode(BLACK), field, undefined, { mode: 'normal', amount: 1, linear: false, colour })
}
