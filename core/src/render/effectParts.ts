import { rgbFromHex, type Rgb } from '../colour/hex'
import type { EffectScene } from '../effects/effectDefinition'
import { definitionOf, type Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { MaskContext } from '../masks/maskDefinition'
import { whereNode } from '../masks/whereNode'
import { noMarks, type SceneMarks } from '../model/marks'
import { constantFieldNode } from '../operations/sources/constantField/constantField'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { litFieldNode } from '../operations/light/litField/litField'
import { mixNode } from '../operations/mixing/mix/mix'
import { frameOf, type Frame } from '../model/frame'
import { photoNode } from '../operations/sources/photo/photo'
import { rampNode } from '../operations/colour/ramp/ramp'
import { workingSpaceOf } from '../photo/pictureIds'
import { airLightOf } from './airLightOf'
import { sceneBrightnessNode } from '../operations/light/sceneLight/sceneLight'
import type { Brought, BuildMemo } from './buildMemo'
import { balancedColours, inSceneLight } from './effectColours'
import { colourOf, insideOfGroup, isEffect, type Owner, type PictureSource } from './pictureSource'
import { groundworkNode } from './groundworkNode'
import { distanceNode, knowsDistance } from './sceneDepth'
import { uprightControls } from './uprightControls'

const BLACK: Rgb = [0, 0, 0]

/** What each effect of a scene is by itself: its field, its colours, what it may know, and what its masks may read. How they stand over one another is for the stack. */
export abstract class EffectParts {
  /** The photo with its groundwork. */
  readonly photo: GraphNode
  protected readonly frame: Frame
  protected readonly marks: SceneMarks
  private readonly sharedNodes = new Map<string, GraphNode | undefined>()

  protected constructor(
    readonly source: PictureSource,
    protected readonly memo: BuildMemo,
  ) {
    const { photo, groundwork } = source
    this.photo = groundworkNode(photoNode(photo.id), groundwork)
    this.frame = frameOf(photo, groundwork?.crop)
    this.marks = source.marks ?? noMarks
  }

  /** Everything beneath an effect or group. */
  abstract beneath(owner: Owner): GraphNode
  /** Effects on black. */
  abstract onBlack(effects: readonly Effect[]): GraphNode
  /** The frozen stack of a pinned state over the same photo. */
  protected abstract pinnedNode(id: string | null): GraphNode | undefined

  /** Distances of the scene, metres. */
  get distance(): GraphNode {
    return this.memo.part('distance', () => distanceNode(this.source.photo, this.marks, this.source.depth))
  }

  private get knownDistance(): GraphNode | undefined {
    return knowsDistance(this.marks, this.source.depth) ? this.distance : undefined
  }

  /** What an effect may know of the scene. @param beneath everything beneath it, if that is known already */
  sceneOf(effect: Effect, beneath?: GraphNode): EffectScene {
    const { source, photo: picture, marks, memo } = this
    const below = (): GraphNode => beneath ?? this.beneath(effect)
    const distance = (): GraphNode => this.distance
    const knownDistance = (): GraphNode | undefined => this.knownDistance
    const region = (): GraphNode | undefined => (effect.region ? whereNode(effect.region, this.context(effect, below)) : undefined)
    return {
      width: source.photo.width,
      height: source.photo.height,
      frame: this.frame,
      marks,
      working: workingSpaceOf(source.photo.id),
      phase: source.phase ?? 0,
      picture,
      get distance() {
        return distance()
      },
      get knownDistance() {
        return knownDistance()
      },
      get beneath() {
        memo.note('stack')
        return below()
      },
      get region() {
        memo.note('stack')
        return region()
      },
      otherEffect: (id) => {
        memo.note('others')
        const other = source.effects.find((one) => one.id === id)
        if (!other || definitionOf(other.kind).madeFromEffect) return undefined
        return { field: this.field(other), colours: () => this.colours(other) ?? constantTonesNode(this.colour(other)) }
      },
    }
  }

  /** The shaped pattern of an effect, as bright as the scene lights it. */
  field(effect: Effect, beneath?: GraphNode): GraphNode {
    return this.contribution(effect, beneath)?.litField ?? constantFieldNode(0)
  }

  private rampedField(effect: Effect, beneath?: GraphNode): GraphNode {
    const brought = this.contribution(effect, beneath)
    return (brought?.gives === 'light' ? brought.ramped : undefined) ?? this.field(effect, beneath)
  }

  /** What an effect brings to the picture; undefined where that leads back to itself. */
  contribution(effect: Effect, beneath?: GraphNode): Brought | undefined {
    return this.memo.contribution(effect, beneath, () => {
      const brought = definitionOf(effect.kind).contribute(this.controlsOf(effect), this.sceneOf(effect, beneath), this.colour(effect))
      const { lit } = effect.colour
      return {
        ...brought,
        litField:
          lit > 0 ? litFieldNode(brought.field, sceneBrightnessNode(airLightOf(this.source, this.marks)), lit / 100) : brought.field,
      }
    })
  }

  /** The controls of an effect as they are on the photo: what falls keeps its angle to the turned picture. */
  controlsOf(effect: Effect): Effect['controls'] {
    return uprightControls(effect, this.frame.turn)
  }

  colour(effect: Effect): Rgb {
    return colourOf(effect, this.marks)
  }

  /** Colours that differ from place to place, if the effect has them: its own or those of its ramp, in the light of the scene, balanced. */
  colours(effect: Effect, beneath?: GraphNode): GraphNode | undefined {
    return this.memo.colours(effect, beneath, () => {
      const { lit, ramp, balance } = effect.colour
      const stops = ramp?.map(({ at, colour }) => ({ at: at / 100, colour: rgbFromHex(colour) }))
      const colours = this.ownColours(effect, beneath) ?? (stops && rampNode(this.rampedField(effect, beneath), stops))
      const colour = this.colour(effect)
      const lightened = inSceneLight(airLightOf(this.source, this.marks), lit, colour, colours)
      return balance ? balancedColours(this.field(effect, beneath), balance, colour, lightened) : lightened
    })
  }

  private ownColours(effect: Effect, beneath?: GraphNode): GraphNode | undefined {
    const brought = this.contribution(effect, beneath)
    if (!brought || brought.gives === 'clearing') return undefined
    return brought.gives === 'light' ? brought.colours() : brought.picture()
  }

  /** What an effect draws, in its colours, on black. */
  drawn(effect: Effect, mask?: GraphNode): GraphNode {
    const params = { mode: 'normal', amount: 1, linear: false, colour: this.colour(effect) } as const
    return mixNode(constantTonesNode(BLACK), this.field(effect), mask, params, this.colours(effect))
  }

  protected context(owner: Owner, beneath: () => GraphNode): MaskContext {
    const { source, photo: picture, memo } = this
    const knownDistance = (): GraphNode | undefined => this.knownDistance
    const own = (): GraphNode => (isEffect(owner) ? this.drawn(owner) : this.onBlack(insideOfGroup(source, owner.id)))
    return {
      photo: source.photo,
      frame: this.frame,
      photoId: source.photo.id,
      picture,
      get beneath() {
        return beneath()
      },
      marks: this.marks,
      get distance() {
        return knownDistance()
      },
      get own() {
        memo.note('others')
        return own()
      },
      shared: (id) => this.sharedNode(id),
      pinned: (id) => this.pinnedNode(id),
      pattern: (id) => {
        memo.note('others')
        const other = source.effects.find((effect) => effect.id === id)
        return other && this.field(other)
      },
    }
  }

  /** What shared masks may read: the photo and pinned states; nothing of what they mask, and not one another. */
  sharedContext(): MaskContext {
    const { source, photo: picture } = this
    const knownDistance = (): GraphNode | undefined => this.knownDistance
    return {
      photo: source.photo,
      frame: this.frame,
      photoId: source.photo.id,
      picture,
      beneath: picture,
      own: constantTonesNode(BLACK),
      marks: this.marks,
      get distance() {
        return knownDistance()
      },
      shared: () => undefined,
      pinned: (id) => this.pinnedNode(id),
      pattern: () => undefined,
    }
  }

  /** A shared mask, made once over the photo with its groundwork, whoever reads it. */
  private sharedNode(id: string | null): GraphNode | undefined {
    const mask = this.source.shared?.find((one) => one.id === id)
    if (!mask) return undefined
    if (!this.sharedNodes.has(mask.id)) this.sharedNodes.set(mask.id, whereNode(mask.where, this.sharedContext()))
    return this.sharedNodes.get(mask.id)
  }
}
