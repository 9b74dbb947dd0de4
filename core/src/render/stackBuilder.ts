import type { Rgb } from '../colour/hex'
import type { Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { MaskContext } from '../masks/maskDefinition'
import { whereNode } from '../masks/whereNode'
import type { Group, Where } from '../model/look'
import { clearAirNode } from '../operations/distance/clearAir/clearAir'
import { constantFieldNode } from '../operations/sources/constantField/constantField'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { fadeTonesNode } from '../operations/mixing/fadeTones/fadeTones'
import { mixNode, type MixParameters } from '../operations/mixing/mix/mix'
import { layerMixNode } from '../operations/mixing/mixLayer/layerMix'
import { mixLayerNode } from '../operations/mixing/mixLayer/mixLayer'
import { EffectParts } from './effectParts'
import { BuildMemo, type Environment } from './buildMemo'
import { readsOthers } from './readsOthers'
import { effectsBeneath, insideOfGroup, isEffect, type Owner, type PictureSource } from './pictureSource'

const BLACK: Rgb = [0, 0, 0]
/** One effect or group that is shown stronger than it is. */
interface Exaggerated {
  readonly id: string
  readonly times: number
}

/** A run of effects that stand together: those of one group, or a single effect without one. */
interface Run {
  readonly group: Group | undefined
  readonly effects: readonly Effect[]
}

const builders = new WeakMap<PictureSource, StackBuilder>()

/**
 * Turns the stack of a scene into a graph, from the farthest effect to the nearest. Each part is made once, and what an effect makes of the same
 * things beneath it in the same surroundings is what it made in the scene before (`BuildMemo`).
 */
export class StackBuilder extends EffectParts {
  private readonly environment: Environment

  /** @param outer what a pinned state that is built for a mask shares with the scene */
  private constructor(source: PictureSource, outer?: BuildMemo) {
    super(source, new BuildMemo(outer))
    const { photo, groundwork, shared, pinned, depth, phase = 0 } = source
    this.environment = { photo, groundwork, marks: this.marks, shared, pinned, depth, phase }
    // What leads back to itself is cut where this order meets it, whatever is asked for first.
    if (!source.effects.some(readsOthers)) return
    for (const effect of source.effects) {
      this.field(effect)
      this.colours(effect)
    }
  }

  /** The builder of a source. A source that does not change has one. */
  static of(source: PictureSource): StackBuilder {
    const known = builders.get(source)
    if (known) return known
    const made = new StackBuilder(source)
    if (Object.isFrozen(source)) builders.set(source, made)
    return made
  }

  result(exaggerated?: Exaggerated): GraphNode {
    const { amount = 100, effects } = this.source
    const make = (): GraphNode => {
      const stack = this.stack(effects, this.photo, exaggerated)
      return amount < 100 ? fadeTonesNode(this.photo, stack, undefined, { amount: amount / 100, linear: false }) : stack
    }
    return exaggerated ? make() : this.memo.part('result', make)
  }

  /** The picture as it is with an effect or group and all beneath it, even if it is switched off. */
  resultUpTo(owner: Owner): GraphNode {
    if (isEffect(owner)) return this.effectNode(owner.on ? owner : { ...owner, on: true }, this.beneath(owner))
    return this.groupNode({ group: { ...owner, on: true }, effects: insideOfGroup(this.source, owner.id) }, this.beneath(owner))
  }

  /** Everything beneath an effect or group. One inside a group sees the members before it without the group's mask, as they act inside it. */
  beneath(owner: Owner): GraphNode {
    return this.memo.part(`beneath ${owner.id}`, () => {
      const below = effectsBeneath(this.source.effects, owner)
      return this.stackWithin(below, isEffect(owner) ? owner.group : null)
    })
  }

  /** What the masks of an effect or group may read. */
  contextOf(owner: Owner): MaskContext {
    return this.context(owner, () => this.beneath(owner))
  }

  /** Effects on black; under the mask of their group if one is given. */
  onBlack(effects: readonly Effect[], group?: Group): GraphNode {
    const black = constantTonesNode(BLACK)
    const inside = effects.reduce((beneath, effect) => this.effectNode(effect.on ? effect : { ...effect, on: true }, beneath), black)
    return fadeTonesNode(black, inside, group && whereNode(group.where, this.contextOf(group)), { amount: 1, linear: false })
  }

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
    const make = (): GraphNode => this.mixed(effect, beneath, exaggerated)
    return exaggerated?.id === effect.id ? make() : this.memo.effect(effect, this.environment, beneath, make)
  }

  /** The picture beneath with what an effect brings to it. */
  private mixed(effect: Effect, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode {
    const mask = whereNode(
      effect.where,
      this.context(effect, () => beneath),
    )
    const mix = this.mixOf(effect, exaggerated)
    const brought = this.contribution(effect, beneath)
    const field = this.field(effect, beneath)
    if (brought?.gives === 'clearing') {
      const { colour, amount, linear } = mix
      return clearAirNode(beneath, field, mask, { colour, amount, linear, kept: brought.kept })
    }
    const after = brought?.gives === 'correction' ? brought.after : undefined
    const colours = this.colours(effect, beneath)
    // What it leaves as it is need not be mixed with itself, which would round it.
    if (colours === beneath && mix.mode === 'normal' && !after) return beneath
    const mixed = mixNode(beneath, field, mask, mix, colours)
    return after ? after(mixed, { amount: mix.amount, mask }) : mixed
  }

  /** A group passes through: its effects act on what is beneath, and mask and amount fade between without and with them. Another mode isolates it. */
  private groupNode({ group, effects }: Run, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode {
    if (!group?.on || group.mix.amount === 0) return beneath
    const mask = whereNode(
      group.where,
      this.context(group, () => beneath),
    )
    const { mode, linear } = group.mix
    const amount = (group.mix.amount / 100) * (exaggerated?.id === group.id ? exaggerated.times : 1)
    if (mode === 'normal') return fadeTonesNode(beneath, this.sequence(effects, beneath, exaggerated), mask, { amount, linear })
    const layer = effects.reduce<GraphNode | undefined>((below, effect) => this.layerNode(effect, below, beneath, exaggerated), undefined)
    return layer ? mixLayerNode(beneath, layer, mask, { mode, amount, linear }) : beneath
  }

  /** What an effect lays over the layer of an isolated group. */
  private layerNode(effect: Effect, below: GraphNode | undefined, beneath: GraphNode, exaggerated?: Exaggerated): GraphNode | undefined {
    if (!effect.on || effect.mix.amount === 0) return below
    const mask = whereNode(
      effect.where,
      this.context(effect, () => beneath),
    )
    const mix = this.mixOf(effect, exaggerated)
    const brought = this.contribution(effect, beneath)
    const field = this.field(effect, beneath)
    // There is no air inside a layer that stands by itself, so nothing can be taken out of it.
    if (brought?.gives === 'clearing') return below
    const colours = this.colours(effect, beneath)
    if (brought?.gives !== 'correction' || !brought.after) return layerMixNode(below, field, mask, mix, colours)
    // What comes after the mix needs the whole picture: the finished one is laid into the layer.
    const whole = { ...mix, amount: 1 }
    const finished = brought.after(mixNode(beneath, field, undefined, whole, colours), { amount: 1, mask: undefined })
    return layerMixNode(below, constantFieldNode(1), mask, { ...mix, mode: 'normal' }, finished)
  }

  /** The mask of a list; undefined if nothing in it is on. */
  mask(owner: Owner, list: Where): GraphNode | undefined {
    return whereNode(list, this.contextOf(owner))
  }

  private mixOf(effect: Effect, exaggerated?: Exaggerated): MixParameters & { readonly colour: Rgb } {
    const times = exaggerated?.id === effect.id ? exaggerated.times : 1
    return { mode: effect.mix.mode, amount: (effect.mix.amount / 100) * times, linear: effect.mix.linear, colour: this.colour(effect) }
  }

  /** The frozen stack of a pinned state over the same photo. One that reads itself, which only a forged file can, is as good as gone. */
  protected pinnedNode(id: string | null): GraphNode | undefined {
    const state = this.source.pinned?.find((one) => one.id === id)
    if (!state) return undefined
    const { effects, groups, shared } = state
    return this.memo.pinned(state, () => new StackBuilder({ ...this.source, effects, groups, shared, amount: 100 }, this.memo).result())
  }
}
