import type { Contribution } from '../effects/effectDefinition'
import type { Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import type { DepthPicture } from '../model/depth'
import type { SceneMarks } from '../model/marks'
import type { PinnedState, SharedMask } from '../model/stack'
import type { PictureSource } from './pictureSource'

/** What an effect may depend on besides itself, what lies beneath it, and other effects. */
export interface Environment {
  readonly photo: PictureSource['photo']
  readonly groundwork: PictureSource['groundwork']
  readonly marks: SceneMarks
  readonly shared: readonly SharedMask[] | undefined
  readonly pinned: readonly PinnedState[] | undefined
  readonly depth: DepthPicture | null | undefined
  readonly phase: number
}

/** What was read while something was made: only the effect's surroundings, what lies beneath it, or other effects, which may be any. */
type Reading = 'nothing' | 'stack' | 'others'

interface Made<T> {
  readonly value: T
  readonly read: Reading
}

interface Kept<T> extends Made<T> {
  readonly environment: Environment
  readonly beneath: GraphNode
}

/** What an effect brings, with its field as bright as the scene lights it. */
export type Brought = Contribution & { readonly litField: GraphNode }

/** What unchanged effects made in the scene before; it goes with them. */
const effectsBefore = new WeakMap<Effect, Kept<GraphNode>>()

/**
 * What has been made of one stack. Everything is made once, so that stacks whose regions, patterns and pinned states read one another take time by
 * their number. What leads back to itself is taken as nothing there.
 */
export class BuildMemo {
  private readonly parts = new Map<string, Made<GraphNode>>()
  private readonly contributions = new Map<string, Made<Brought>>()
  private readonly colourings = new Map<string, Made<GraphNode | undefined>>()
  private readonly states: Map<string, GraphNode | undefined>
  private readonly statesUnderWay: Set<string>
  private readonly underWay = new Set<string>()
  /** How often something that leads back to itself was taken as nothing. */
  private cuts = 0
  private reading: Reading = 'nothing'

  /** @param outer the memo of the scene whose pinned states these are */
  constructor(outer?: BuildMemo) {
    this.states = outer?.states ?? new Map<string, GraphNode | undefined>()
    this.statesUnderWay = outer?.statesUnderWay ?? new Set<string>()
  }

  /** Notes that what is being made reads what lies beneath it, or other effects. */
  note(read: Reading): void {
    if (read === 'others' || this.reading === 'nothing') this.reading = read
  }

  /** A part of the stack by its name. */
  part(name: string, make: () => GraphNode): GraphNode {
    const known = this.parts.get(name)
    if (known) {
      this.note(known.read)
      return known.value
    }
    const cuts = this.cuts
    const made = this.made(make)
    // Where something was cut short the part is what it is only from here.
    if (this.cuts === cuts) this.parts.set(name, made)
    return made.value
  }

  /** What an effect brings to the picture; undefined while that is being made. */
  contribution(effect: Effect, beneath: GraphNode | undefined, make: () => Brought): Brought | undefined {
    return this.once(this.contributions, 'contribution', effect, beneath, make)
  }

  /** The colours of an effect; undefined if it has none of its own, or while they are being made. */
  colours(effect: Effect, beneath: GraphNode | undefined, make: () => GraphNode | undefined): GraphNode | undefined {
    return this.once(this.colourings, 'colours', effect, beneath, make)
  }

  /** The picture with an effect over what lies beneath it. */
  effect(effect: Effect, environment: Environment, beneath: GraphNode, make: () => GraphNode): GraphNode {
    const kept = effectsBefore.get(effect)
    if (kept && kept.beneath.key === beneath.key && sameEnvironment(kept.environment, environment)) return kept.value
    const made = this.made(make)
    if (made.read !== 'others' && Object.isFrozen(effect)) effectsBefore.set(effect, { ...made, environment, beneath })
    return made.value
  }

  /** The picture of a pinned state; undefined if it leads back to itself. */
  pinned(state: PinnedState, make: () => GraphNode): GraphNode | undefined {
    if (this.states.has(state.id)) return this.states.get(state.id)
    if (this.statesUnderWay.has(state.id)) return undefined
    this.statesUnderWay.add(state.id)
    try {
      const node = make()
      this.states.set(state.id, node)
      return node
    } finally {
      this.statesUnderWay.delete(state.id)
    }
  }

  /** What is made of an effect, once for each thing beneath it; undefined while it is being made. */
  private once<T>(known: Map<string, Made<T>>, what: string, effect: Effect, beneath: GraphNode | undefined, make: () => T): T | undefined {
    const key = `${effect.id} ${beneath?.key ?? ''}`
    const before = known.get(key)
    if (before) {
      this.note(before.read)
      return before.value
    }
    const name = `${what} ${effect.id}`
    if (this.underWay.has(name)) {
      this.cuts++
      return undefined
    }
    this.underWay.add(name)
    try {
      const made = this.made(make)
      known.set(key, made)
      return made.value
    } finally {
      this.underWay.delete(name)
    }
  }

  /** Makes something, and tells what it read; what is around it has read that too. */
  private made<T>(make: () => T): Made<T> {
    const outer = this.reading
    this.reading = 'nothing'
    try {
      const value = make()
      return { value, read: this.reading }
    } finally {
      const inner = this.reading
      this.reading = outer
      this.note(inner)
    }
  }
}

function sameEnvironment(a: Environment, b: Environment): boolean {
  return (Object.keys(a) as (keyof Environment)[]).every((key) => a[key] === b[key])
}
