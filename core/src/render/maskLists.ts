import type { Mask } from '../masks/registry'
import { emptyWhere, type Where } from '../model/look'
import type { SharedMask } from '../model/stack'
import { findOwner, isEffect, type Owner, type PictureSource } from './pictureSource'

/** The address of a list of masks: where an effect or group may be, the region of an effect, or a shared mask, whose list is its `where`. */
export interface MaskListRef {
  readonly owner: string
  readonly list: 'where' | 'region'
}

export function sameMaskList(a: MaskListRef, b: MaskListRef): boolean {
  return a.owner === b.owner && a.list === b.list
}

/** The list of an effect or group; empty for a region that has no mask yet, undefined if there is no such list. */
export function maskListOf(owner: Owner, list: MaskListRef['list']): Where | undefined {
  if (list === 'where') return owner.where
  return isEffect(owner) ? (owner.region ?? emptyWhere) : undefined
}

/** What has lists of masks. */
type Listing = Pick<PictureSource, 'effects' | 'groups' | 'shared'>

/** The shared mask with an id; undefined if there is none. */
export function sharedMaskOf(source: Pick<PictureSource, 'shared'>, id: string | null): SharedMask | undefined {
  return source.shared?.find((mask) => mask.id === id)
}

/** The list at an address; undefined if what has it is gone. */
export function maskList(source: Listing, { owner, list }: MaskListRef): Where | undefined {
  const found = findOwner(source, owner)
  return found ? maskListOf(found, list) : sharedMaskOf(source, owner)?.where
}

/** One mask of the list at an address. */
export function maskIn(source: Listing, ref: MaskListRef, maskId: string): Mask | undefined {
  return maskList(source, ref)?.masks.find(({ id }) => id === maskId)
}

/** The source with other masks in the list at an address. */
export function withMaskList<S extends Pick<PictureSource, 'effects' | 'groups'>>(
  source: S,
  ref: MaskListRef,
  change: (list: Where) => Where,
): S {
  const changed = <O extends Owner>(owner: O): O => {
    const list = owner.id === ref.owner ? maskListOf(owner, ref.list) : undefined
    return list ? { ...owner, [ref.list]: change(list) } : owner
  }
  return {
    ...source,
    effects: source.effects.map((effect) => changed(effect)),
    groups: (source.groups ?? []).map((group) => changed(group)),
  }
}
