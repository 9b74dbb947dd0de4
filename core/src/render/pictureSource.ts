import { rgbFromHex, type Rgb } from '../colour/hex'
import { colourOfTemperature } from '../colour/temperature'
import type { Effect } from '../effects/registry'
import type { DepthPicture } from '../model/depth'
import type { Groundwork } from '../model/groundwork'
import type { Group } from '../model/look'
import { lightOf, noMarks, type SceneMarks } from '../model/marks'
import type { PinnedState, SharedMask } from '../model/stack'
import type { Size } from '../planes/grid'

/** The part of a scene that a picture depends on. */
export interface PictureSource {
  readonly photo: Size & { readonly id: string }
  /** What is done to the photo before all effects; nothing without it. */
  readonly groundwork?: Groundwork
  readonly effects: readonly Effect[]
  readonly groups?: readonly Group[]
  readonly shared?: readonly SharedMask[]
  readonly pinned?: readonly PinnedState[]
  readonly marks?: SceneMarks
  readonly depth?: DepthPicture | null
  /** 0-100: how much of the whole stack is seen over the photo; all of it without it. */
  readonly amount?: number
  /** 0-1: where the patterns are in their loop; 0 for the still picture. */
  readonly phase?: number
}

/** What has a mask and an amount. */
export type Owner = Effect | Group

export function isEffect(owner: Owner): owner is Effect {
  return 'kind' in owner
}

/** The effect or group with an id; undefined if there is none. */
export function findOwner(source: Pick<PictureSource, 'effects' | 'groups'>, id: string | undefined): Owner | undefined {
  return source.effects.find((effect) => effect.id === id) ?? source.groups?.find((group) => group.id === id)
}

/** The effect or group with an id. @throws Error if there is none */
export function ownerOf(source: PictureSource, id: string): Owner {
  const owner = findOwner(source, id)
  if (!owner) throw new Error(`There is no effect or group ${id} in this scene.`)
  return owner
}

/** The members of a group, in their order. */
export function insideOfGroup(source: Pick<PictureSource, 'effects'>, groupId: string): readonly Effect[] {
  return source.effects.filter((effect) => effect.group === groupId)
}

/** The effects beneath an effect or group, from far to near; all of them if it is not in the stack. */
export function effectsBeneath<E extends Effect>(effects: readonly E[], owner: Pick<Owner, 'id'>): readonly E[] {
  const index = effects.findIndex(({ id, group }) => id === owner.id || group === owner.id)
  return index < 0 ? effects : effects.slice(0, index)
}

/** Colour of an effect's pattern, sRGB-encoded: that of the light it follows, of its colour temperature, or its tint. */
export function colourOf({ colour }: Pick<Effect, 'colour'>, marks: SceneMarks = noMarks): Rgb {
  const light = lightOf(marks, colour.light)
  if (!light && colour.kelvin !== null) return colourOfTemperature(colour.kelvin)
  return rgbFromHex(light?.colour ?? colour.tint)
}
