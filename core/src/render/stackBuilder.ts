import { rgbFromHex, type Rgb } from '../colour/hex'
import { definitionOf, type Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { MaskContext } from '../masks/maskDefinition'
import { whereNode } from '../masks/whereNode'
import type { EffectScene } from '../effects/effectDefinition'
import type { Group } from '../model/look'
import { noMarks, type SceneMarks } from '../model/marks'
import { clearAirNode } from '../operations/clearAir/clearAir'
import { constantFieldNode } from '../operations/constantField/constantField'
import { constantTonesNode } from '../operations/constantTones/constantTones'
import { fadeTonesNode } from '../operations/fadeTones/fadeTones'
import { litFieldNode } from '../operations/litField/litField'
import { mixNode, type MixParameters } from '../operations/mix/mix'
import { layerMixNode } from '../operations/mixLayer/layerMix'
import { mixLayerNode } from '../operations/mixLayer/mixLayer'
import type { AirLight } from '../operations/sceneLight/airLight'
import { sceneBrightnessNode } from '../operations/sceneLight/sceneLight'
import { rampNode } from '../operations/ramp/ramp'
import { photoNode } from '../operations/photo/photo'
import { balancedColours, inSceneLight } from './effectColours'
import { colourOf, effectOfRegion, insideOfGroup, isEffect, type Owner, type PictureSource } from './pictureSource'
import { distanceNode, knowsDistance } from './sceneDepth'

const BLACK: Rgb = [0, 0, 0]
/** How far light spreads in the air: a part of the shorter side of the photo, and radii of a light. */
const AIR_BLUR = 0.045
const LIGHT_REACH = 4

/** One effect or group that is shown stronger than it is. */
interface Exaggerated {
  readonly id: string
  readonly times: number
}

/** Fields by the controls and the scene that they come from: an effect that did not change keeps its field as it is. */
const fields = new WeakMap<object, { readonly from: string; readonly node: GraphNode }>()

function shapedField({ kind, controls }: Effect, scene: SceneOfEffect, { photo, depth = null }: PictureSource): GraphNode {
  const definition = definitionOf(kind)
  if (definition.mirrors) return definition.shape(controls, scene)
  const from = JSON.stringify([kind, photo, scene.marks, scene.phase, depth])
  const known = fields.get(controls)
  if (known?.from === from) return known.node
  const node = definition.shape(controls, scene)
  // Only a frozen object, such as those of the history, is sure to stay as it is.
  if (Object.isFrozen(controls) && !scene.readTheStack) fields.set(controls, { from, node })
  return node
}

/** The scene as one effect sees it. */
interface SceneOfEffect extends EffectScene {
  /** Whether it was asked for what depends on other effects or on masks. */
  readonly readTheStack: boolean
}

/** A run of effects that stand together: those of one group, or a single effect without one. */
interface Run {
  readonly group: Group | undefined
  readonly effects: readonly Effect[]
}

/** Turns the stack of a scene into a graph, from the farthest effect to the nearest. */
export class StackBuilder {
  private readonly photo: GraphNode
  /** Fields and colours that are being made. */
  private readonly underWay = new Set<string>()

  /** @param pinning pinned states that are being built, so that one that reads itself ends */
  constructor(
    readonly source: PictureSource,
    private readonly pinning: readonly string[] = [],
  ) {
    this.photo = photoNode(source.photo.id)
  }

  result(exaggerated?: Exaggerated): GraphNode {
    return this.stack(this.source.effects, this.photo, exaggerated)
  }

  /** The picture as it is with an effect or group and all beneath it, even if it is switched off. */
  resultUpTo(owner: Owner): GraphNode {
    const lit = { ...owner, on: true }
    if (!isEffect(lit)) return this.groupNode({ group: lit, effects: insideOfGroup(this.source, owner.id) }, this.beneath(owner))
    return this.effectNode(lit, this.beneath(owner))
  }

  /** What the masks of an effect or group may read. */
  contextOf(owner: Owner): MaskContext {
    return this.context(owner, this.beneath(owner))
  }

  /** Distances of the scene, metres. */
  get distance(): GraphNode {
    return distanceNode(this.source.photo, this.marks, this.source.depth)
  }

  private get knownDistance(): GraphNode | undefined {
    return knowsDistance(this.marks, this.source.depth) ? this.distance : undefined
  }

  /** What an effect may know of the scene. @param beneath everything beneath it, if that is known already */
  sceneOf(effect: Effect, beneath?: GraphNode): SceneOfEffect {
    const { photo, phase = 0 } = this.source
    const [builder, picture, marks] = [this, this.photo, this.marks] as const
    const below = (): GraphNode => beneath ?? builder.beneath(effect)
    let readTheStack = false
    return {
      width: photo.width,
      height: photo.height,
      marks,
      phase,
      picture,
      get readTheStack() {
        return readTheStack
      },
      get distance() {
        return builder.distance
      },
      get knownDistance() {
        return builder.knownDistance
      },
      get beneath() {
        readTheStack = true
        return below()
      },
      get region() {
        readTheStack = true
        return effect.region ? whereNode(effect.region, builder.context(effect, below())) : undefined
      },
      otherEffect: (id) => {
        readTheStack = true
        const other = builder.source.effects.find((one) => one.id === id)
        if (!other || definitionOf(other.kind).mirrors) return undefined
        return { field: builder.field(other), colours: builder.paint(other) ?? constantTonesNode(builder.colour(other)) }
      },
    }
  }

  /** The shaped pattern of an effect, as bright as the scene lights it. */
  field(effect: Effect, beneath?: GraphNode): GraphNode {
    const make = (): GraphNode => {
      const field = shapedField(effect, this.sceneOf(effect, beneath), this.source)
      return effect.colour.lit > 0 ? litFieldNode(field, sceneBrightnessNode(this.airLight()), effect.colour.lit / 100) : field
    }
    return this.once(`field ${effect.id}`, make) ?? constantFieldNode(0)
  }

  /** Regions, and what lies beneath, may lead back to what is being made; there it is as good as nothing. */
  private once<T>(what: string, make: () => T): T | undefined {
    if (this.underWay.has(what)) return undefined
    this.underWay.add(what)
    try {
      return make()
    } finally {
      this.underWay.delete(what)
    }
  }

  private get marks(): SceneMarks {
    return this.source.marks ?? noMarks
  }

  private airLight(): AirLight {
    const { photo } = this.source
    const glows = this.marks.lights.map(({ x, y, radius, strength, colour }) => ({
      x,
      y,
      sigma: LIGHT_REACH * radius,
      strength: (0.8 * strength) / 100,
      colour: rgbFromHex(colour),
    }))
    return { photoId: photo.id, sigma: AIR_BLUR * Math.min(photo.width, photo.height), glows }
  }

  colour(effect: Effect): Rgb {
    return colourOf(effect, this.source.marks)
  }

  /** Effects on black; under the mask of their group if one is given. */
  onBlack(effects: readonly Effect[], group?: Group): GraphNode {
    const black = constantTonesNode(BLACK)
    const inside = effects.reduce((beneath, effect) => this.effectNode({ ...effect, on: true }, beneath), black)
    return fadeTonesNode(black, inside, group && whereNode(group.where, this.contextOf(group)), { amount: 1, linear: false })
  }

  private beneath(owner: Owner): GraphNode {
    const first = isEffect(owner) ? (effectOfRegion(owner.id) ?? owner.id) : insideOfGroup(this.source, owner.id)[0]?.id
    const index = this.source.effects.findIndex(({ id }) => id === first)
    return this.stackWithin(this.source.effects.slice(0, index), isEffect(owner) ? owner.group : null)
  }

  /** The stack up to somewhere inside a group: the members before it act without the group's mask, as they do inside it. */
  private stackWithin(effects: readonly Effect[], within: string | null): GraphNode {
    const open = within ? effects.filter((effect) => effect.group !== within) : effects
    const members = within ? effects.filter((effect) => effect.group === within) : []
    const beneath = this.stack(open, this.photo)
    const group = this.groupNamed(within)
    return group && group.mix.mode !== 'normal' ? beneath : this.sequence(members, beneath)
  }

  private stack(effects: readonly Effect[], base: GraphNode, exaggerated?: Exaggerated): GraphNode {
    return this.runs(effects).reduce((beneath, run) => {
      if (run.group) return this.groupNode(run, beneath, exaggerated)
      return this.sequence(run.effects, beneath, exaggerated)
    }, base)
  }

  private sequence(effects: readonly Effect[], base: GraphNode, exaggerated?: Exaggerated): GraphNode {
    return effects.reduce((beneath, effect) => this.effectNode(effect, beneath, exaggerated), base)
  }

  private runs(effects: readonly Effect[]): Run[] {
    const runs: { group: Group | undefined; effects: Effect[] }[] = []
    for (const effect of effects) {
      const group = this.groupNamed(effect.group)
      const last = runs.at(-1)
      if (last && group && last.group === group) last.effects.push(effect)
      else runs.push({ group, effects: [effect] })
    }
    return runs
  }

  private groupNamed(id: string | null): Group | undefined {
    return id === null ? undefined : this.source.groups?.find((group) => group.id === id)
  }

  private effectNode(effect: Effect, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode {
    if (!effect.on || effect.mix.amount === 0) return beneath
    const mask = whereNode(effect.where, this.context(effect, beneath))
    const mix = this.mixOf(effect, exaggerated)
    if (definitionOf(effect.kind).clears?.(effect.controls)) {
      const { colour, amount, linear } = mix
      return clearAirNode(beneath, this.field(effect, beneath), mask, { colour, amount, linear })
    }
    const mixed = mixNode(beneath, this.field(effect, beneath), mask, mix, this.paint(effect, beneath))
    const { finish } = definitionOf(effect.kind)
    return finish ? finish(effect.controls, this.sceneOf(effect, beneath), mixed, { amount: mix.amount, mask }) : mixed
  }

  /** A group passes through: its effects act on what is beneath, and mask and amount fade between without and with them. Another mode isolates it. */
  private groupNode({ group, effects }: Run, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode {
    if (!group?.on || group.mix.amount === 0) return beneath
    const mask = whereNode(group.where, this.context(group, beneath))
    const { mode, linear } = group.mix
    const amount = (group.mix.amount / 100) * (exaggerated?.id === group.id ? exaggerated.times : 1)
    if (mode === 'normal') return fadeTonesNode(beneath, this.sequence(effects, beneath, exaggerated), mask, { amount, linear })
    const layer = effects.reduce<GraphNode | undefined>((below, effect) => this.layerNode(effect, below, beneath, exaggerated), undefined)
    return layer ? mixLayerNode(beneath, layer, mask, { mode, amount, linear }) : beneath
  }

  private layerNode(effect: Effect, below: GraphNode | undefined, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode | undefined {
    // There is no air inside a layer that stands by itself, so nothing can be taken out of it.
    if (!effect.on || effect.mix.amount === 0 || definitionOf(effect.kind).clears?.(effect.controls)) return below
    const mask = whereNode(effect.where, this.context(effect, beneath))
    return layerMixNode(below, this.field(effect, beneath), mask, this.mixOf(effect, exaggerated), this.paint(effect, beneath))
  }

  /** Colours that differ from place to place, if the effect has them: its own or those of its ramp, in the light of the scene, balanced. */
  paint(effect: Effect, beneath?: GraphNode): GraphNode | undefined {
    return this.once(`paint ${effect.id}`, () => this.coloursOf(effect, beneath))
  }

  private coloursOf(effect: Effect, beneath?: GraphNode): GraphNode | undefined {
    const { lit, ramp, balance } = effect.colour
    const own = definitionOf(effect.kind).paint?.(effect.controls, this.sceneOf(effect, beneath), this.colour(effect))
    const stops = ramp?.map(({ at, colour }) => ({ at: at / 100, colour: rgbFromHex(colour) }))
    const colours = own ?? (stops && rampNode(this.field(effect, beneath), stops))
    const colour = this.colour(effect)
    const lightened = inSceneLight(this.airLight(), lit, colour, colours)
    return balance ? balancedColours(this.field(effect, beneath), balance, colour, lightened) : lightened
  }

  /** What an effect draws, in its colours, on black. */
  drawn(effect: Effect, mask?: GraphNode): GraphNode {
    const params = { mode: 'normal', amount: 1, linear: false, colour: this.colour(effect) } as const
    return mixNode(constantTonesNode(BLACK), this.field(effect), mask, params, this.paint(effect))
  }

  private mixOf(effect: Effect, exaggerated?: Exaggerated): MixParameters & { readonly colour: Rgb } {
    const times = exaggerated?.id === effect.id ? exaggerated.times : 1
    return { mode: effect.mix.mode, amount: (effect.mix.amount / 100) * times, linear: effect.mix.linear, colour: this.colour(effect) }
  }

  private context(owner: Owner, beneath: GraphNode): MaskContext {
    const { photo, picture, source } = { photo: this.source.photo, picture: this.photo, source: this.source }
    const knownDistance = (): GraphNode | undefined => this.knownDistance
    const ownTones = (): GraphNode => {
      if (!isEffect(owner)) return this.onBlack(insideOfGroup(source, owner.id))
      return this.drawn(owner)
    }
    return {
      photo,
      photoId: photo.id,
      picture,
      beneath,
      marks: source.marks ?? noMarks,
      get distance() {
        return knownDistance()
      },
      get own() {
        return ownTones()
      },
      pinned: (id) => this.pinnedNode(id),
      pattern: (id) => {
        const other = source.effects.find((effect) => effect.id === id)
        return other && this.field(other)
      },
    }
  }

  /** The frozen stack of a pinned state over the same photo. One that reads itself, which only a forged file can, is as good as gone. */
  private pinnedNode(id: string | null): GraphNode | undefined {
    const state = this.source.pinned?.find((one) => one.id === id)
    if (!state || this.pinning.includes(state.id)) return undefined
    const source = { ...this.source, effects: state.effects, groups: state.groups }
    return new StackBuilder(source, [...this.pinning, state.id]).result()
  }
}
