import type { Rgb } from '../colour/hex'
import { definitionOf, type Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { MaskContext } from '../masks/maskDefinition'
import { singleMaskNode } from '../masks/whereNode'
import { emptyWhere } from '../model/look'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { differenceNode } from '../operations/fields/difference/difference'
import { maskAsTonesNode } from '../operations/masks/maskAsTones/maskAsTones'
import { newlyClippedNode } from '../operations/mixing/newlyClipped/newlyClipped'
import { mixNode } from '../operations/mixing/mix/mix'
import { distanceAsTonesNode } from '../operations/distance/sceneDistance/sceneDistance'
import { photoNode } from '../operations/sources/photo/photo'
import { maskListOf, sharedMaskOf, type MaskListRef } from './maskLists'
import { insideOfGroup, isEffect, ownerOf, type Owner, type PictureSource } from './pictureSource'
import { StackBuilder } from './stackBuilder'

export const stepNames = ['pattern', 'shape', 'colour', 'where', 'mix'] as const
export type StepName = (typeof stepNames)[number]

/**
 * What is looked at: the picture, the photo as it came or with its groundwork, what is newly clipped against it, its distances as grey, what lies beneath an effect or group, one step of it, a list of masks or one mask of
 * it, what one effect alone contributes, on black, or the detail that a soft focus gives back, on mid-grey. The picture can show one effect or group at several times its strength.
 */
export type Look =
  | { readonly kind: 'result'; readonly exaggerated?: string | undefined }
  | { readonly kind: 'photo' }
  | { readonly kind: 'groundwork' }
  | { readonly kind: 'clipped' }
  | { readonly kind: 'distance' }
  | { readonly kind: 'step'; readonly effectId: string; readonly step: StepName }
  | { readonly kind: 'beneath'; readonly effectId: string }
  | { readonly kind: 'masks'; readonly of: MaskListRef; readonly maskId?: string | undefined }
  | { readonly kind: 'alone'; readonly effectId: string }
  | { readonly kind: 'detail'; readonly effectId: string }

/** How many times its strength an exaggerated effect shows. */
export const EXAGGERATION = 3

const WHITE: Rgb = [1, 1, 1]
const BLACK: Rgb = [0, 0, 0]

/** The graph whose tones are what `look` shows. @throws Error if the effect or group is not in the scene */
export function sceneGraph(source: PictureSource, look: Look = { kind: 'result' }): GraphNode {
  if (look.kind === 'photo') return photoNode(source.photo.id)
  const builder = StackBuilder.of(source)
  if (look.kind === 'clipped') return newlyClippedNode(photoNode(source.photo.id), builder.result())
  if (look.kind === 'groundwork') return builder.photo
  if (look.kind === 'distance') return distanceAsTonesNode(builder.distance)
  if (look.kind === 'result') return builder.result(look.exaggerated ? { id: look.exaggerated, times: EXAGGERATION } : undefined)
  if (look.kind === 'masks') return maskPicture(masksNode(builder, look.of, look.maskId))
  const owner = ownerOf(source, look.effectId)
  if (look.kind === 'beneath') return builder.beneath(owner)
  if (look.kind === 'alone') return aloneNode(builder, owner, true)
  if (look.kind === 'detail') return detailNode(builder, owner)
  if (look.step === 'where') return maskPicture(builder.mask(owner, owner.where))
  if (look.step === 'mix') return builder.resultUpTo(owner)
  if (look.step === 'colour' || !isEffect(owner)) return aloneNode(builder, owner, false)
  if (look.step === 'shape') return shapeNode(builder, owner)
  return onBlack(definitionOf(owner.kind).pattern(builder.controlsOf(owner), builder.sceneOf(owner)), WHITE)
}

/** What the masks of an effect, a group or a shared mask may read. @throws Error if it is not in the scene */
export function maskContext(source: PictureSource, ownerId: string): MaskContext {
  const builder = StackBuilder.of(source)
  return sharedMaskOf(source, ownerId) ? builder.sharedContext() : builder.contextOf(ownerOf(source, ownerId))
}

function masksNode(builder: StackBuilder, of: MaskListRef, maskId: string | undefined): GraphNode | undefined {
  const owner = ownerOf(builder.source, of.owner)
  const list = maskListOf(owner, of.list)
  if (maskId === undefined) return list && builder.mask(owner, list)
  const mask = list?.masks.find(({ id }) => id === maskId)
  return mask && singleMaskNode(mask, builder.contextOf(owner))
}

function maskPicture(mask: GraphNode | undefined): GraphNode {
  return mask ? maskAsTonesNode(mask) : constantTonesNode(WHITE)
}

/** What an effect or group contributes: light on black, a correction as its difference on mid-grey. */
function aloneNode(builder: StackBuilder, owner: Owner, masked: boolean): GraphNode {
  if (!isEffect(owner)) return builder.onBlack(insideOfGroup(builder.source, owner.id), masked ? owner : undefined)
  if (builder.contribution(owner)?.gives === 'correction') {
    const bare = masked ? owner : { ...owner, where: emptyWhere }
    return differenceNode(builder.resultUpTo(bare), builder.beneath(owner), false)
  }
  return builder.drawn(owner, masked ? builder.mask(owner, owner.where) : undefined)
}

/** The shaped pattern, white on black; of a correction, whose field is the same all over, the picture that it lays over what lies beneath. */
function shapeNode(builder: StackBuilder, effect: Effect): GraphNode {
  const brought = builder.contribution(effect)
  return brought?.gives === 'correction' ? brought.picture() : onBlack(builder.field(effect), WHITE)
}

/** How many times its strength detail is seen by itself: it is faint. */
const SEEN_DETAIL = 4

/** What comes back of the detail of a soft focus, stronger than it is: the picture with it against the same without it. */
function detailNode(builder: StackBuilder, owner: Owner): GraphNode {
  if (!isEffect(owner) || owner.kind !== 'softFocus') throw new Error(`${owner.id} has no detail.`)
  const { source } = builder
  const { pattern, shape } = owner.controls
  const withDetail = (detail: number): GraphNode => {
    const changed: Effect = { ...owner, controls: { pattern, shape: { ...shape, detail } } }
    // A builder knows an effect by its id: one that is changed has another.
    return StackBuilder.of({ ...source, effects: source.effects.map((one) => (one === owner ? changed : one)) }).resultUpTo(changed)
  }
  return differenceNode(withDetail(SEEN_DETAIL * shape.detail), withDetail(0), false)
}

function onBlack(field: GraphNode, colour: Rgb): GraphNode {
  return mixNode(constantTonesNode(BLACK), field, undefined, { mode: 'normal', amount: 1, linear: false, colour })
}
