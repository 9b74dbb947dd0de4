import {
  nameOfEffect,
  sharedMaskOf,
  type Mask,
  type MaskListRef,
  type PictureSource,
  type Scene,
  type SharedMask,
  type Where,
} from '@welkinar/core'
import { showNotice } from '../../common/notices'
import { listIn, useScene } from '../../scene/sceneStore'
import { masksAlike } from './masksAlike'
import { pinIn } from './pinState'

type NewId = () => string
const newId: NewId = () => crypto.randomUUID()

type Reference = Extract<Mask, { kind: 'shared' }>

/** Why a mask cannot be shared, in a sentence; undefined if it can. */
export function whyNotShared(mask: Mask): string | undefined {
  if ('tonesFrom' in mask && mask.tonesFrom === 'effect') return 'It reads the effect that it masks, so that others cannot have it.'
  if (mask.kind === 'pattern') return 'It reads what another effect draws, so that others cannot have it.'
  return mask.kind === 'shared' ? 'It is shared already.' : undefined
}

/**
 * Puts a mask of a list among the shared ones of the scene, and a reference to it in its place, which joins as it did. What lay beneath when it was read goes on as a pinned state.
 * Returns the id of the shared mask.
 */
export function shareIn(scene: Scene, ref: MaskListRef, maskId: string, name: string, makeId: NewId): string | undefined {
  const list = listIn(scene, ref)
  const at = list?.masks.findIndex(({ id }) => id === maskId) ?? -1
  const mask = list?.masks[at]
  if (!list || !mask || whyNotShared(mask)) return undefined
  const inner = { ...mask, join: 'keep' as const, strength: 100, on: true }
  if ('tonesFrom' in inner && inner.tonesFrom === 'beneath') {
    Object.assign(inner, { tonesFrom: 'pinned', pinned: pinIn(scene, ref.owner, 'beneath', makeId) })
  }
  const id = makeId()
  scene.shared.push({ id, name: freeName(scene, name), where: { masks: [inner], hold: 100 } })
  const plain = { name: '', invert: false, grow: 0, edges: 0, feather: 0 }
  list.masks[at] = { ...plain, id: makeId(), kind: 'shared', of: id, on: mask.on, join: mask.join, strength: mask.strength }
  return id
}

/** Puts in the place of a reference masks of its own that do the same; where none can, a shared mask that nobody else has. */
export function ownIn(scene: Scene, ref: MaskListRef, maskId: string, makeId: NewId): void {
  const list = listIn(scene, ref)
  const at = list?.masks.findIndex(({ id }) => id === maskId) ?? -1
  const reference = list?.masks[at]
  if (!list || reference?.kind !== 'shared') return
  const shared = sharedMaskOf(scene, reference.of)
  if (!shared) return void list.masks.splice(at, 1)
  const copies = ownCopies(reference, shared, list.masks.length === 1)
  if (copies) return void list.masks.splice(at, 1, ...copies.map((mask) => ({ ...structuredClone(mask), id: makeId() })))
  const id = makeId()
  const masks = shared.where.masks.map((mask) => ({ ...mask, id: makeId() }))
  scene.shared.push({ id, name: freeName(scene, shared.name), where: { ...shared.where, masks } })
  list.masks[at] = { ...reference, of: id }
}

/** The masks that do by themselves what a reference does; undefined if none can. */
function ownCopies(reference: Reference, { where }: SharedMask, isAlone: boolean): readonly Mask[] | undefined {
  const { on, join, strength, invert, grow, edges, feather } = reference
  if (!on || grow !== 0 || edges !== 0 || feather !== 0 || where.hold < 100) return undefined
  const plain = join === 'keep' && strength === 100 && !invert
  if (plain && isAlone) return where.masks
  const [only, ...more] = where.masks
  if (!only || more.length > 0 || !only.on || only.join !== 'keep' || only.strength < 100) return undefined
  // What was grown before it was turned over is not what is grown after.
  if (invert && (only.grow !== 0 || only.edges !== 0)) return undefined
  return [{ ...only, join, strength, invert: only.invert !== invert }]
}

/** Takes a shared mask out of the scene. @param leaving what stands where it was: copies, or nothing */
export function removeSharedIn(scene: Scene, id: string, leaving: 'copies' | 'nothing', makeId: NewId): void {
  for (const { ref, masks } of listsWith(scene, id)) {
    if (leaving === 'copies') masks.forEach((mask) => ownIn(scene, ref, mask, makeId))
    else {
      const list = listIn(scene, ref)
      if (list) list.masks = list.masks.filter((mask) => mask.kind !== 'shared' || mask.of !== id)
    }
  }
  scene.shared = scene.shared.filter((mask) => mask.id !== id)
}

/** The lists that read a shared mask, with the ids of the masks by which they do. */
function listsWith(source: Pick<PictureSource, 'effects' | 'groups' | 'shared'>, id: string) {
  const found: { readonly ref: MaskListRef; readonly masks: readonly string[]; readonly words: string }[] = []
  const look = (owner: string, list: MaskListRef['list'], where: Where | null, words: string): void => {
    const masks = (where?.masks ?? []).filter((mask) => mask.kind === 'shared' && mask.of === id).map((mask) => mask.id)
    if (masks.length > 0) found.push({ ref: { owner, list }, masks, words })
  }
  for (const effect of source.effects) {
    look(effect.id, 'where', effect.where, nameOfEffect(effect))
    look(effect.id, 'region', effect.region, nameOfEffect(effect))
  }
  for (const { id: owner, name, where } of [...(source.groups ?? []), ...(source.shared ?? [])]) look(owner, 'where', where, name)
  return found
}

/** What reads a shared mask, by name. */
export function usersOf(source: Pick<PictureSource, 'effects' | 'groups' | 'shared'>, id: string): readonly string[] {
  return [...new Set(listsWith(source, id).map(({ words }) => words))]
}

/**
 * Brings the shared masks of a stack that is laid on a scene into it: where the scene has one that is called and made alike, the stack reads that instead. Changes both, in place.
 */
export function adoptShared(scene: Pick<Scene, 'shared'>, stack: Pick<Scene, 'effects' | 'groups' | 'shared'>): void {
  for (const mask of [...stack.shared]) {
    const there =
      scene.shared.find((one) => one.id === mask.id) ??
      scene.shared.find((one) => one.name === mask.name && masksAlike(one.where, mask.where))
    if (!there) {
      scene.shared.push(mask)
      continue
    }
    const lists = [
      ...stack.effects.flatMap(({ where, region }) => [where, region]),
      ...[...stack.groups, ...stack.shared].map(({ where }) => where),
    ]
    for (const one of lists.flatMap((list) => list?.masks ?? [])) if (one.kind === 'shared' && one.of === mask.id) one.of = there.id
  }
}

function freeName(scene: Pick<Scene, 'shared'>, name: string): string {
  const taken = new Set(scene.shared.map((mask) => mask.name))
  const wanted = name.trim().slice(0, 70) || 'Mask'
  const numbered = (n: number): string => (n === 1 ? wanted : `${wanted} ${n}`)
  let n = 1
  while (taken.has(numbered(n))) n++
  return numbered(n)
}

/** Shares a mask of the open scene under its words, or says why it cannot be. */
export function shareMask(list: MaskListRef, mask: Mask, words: string): void {
  const why = whyNotShared(mask)
  if (why) return showNotice(why)
  useScene.getState().change('Share the mask', (scene) => void shareIn(scene, list, mask.id, words, newId))
}

export function makeMaskOwn(list: MaskListRef, mask: Mask): void {
  useScene.getState().change('A mask of its own', (scene) => ownIn(scene, list, mask.id, newId))
}

export function removeShared(id: string, leaving: 'copies' | 'nothing'): void {
  useScene.getState().change('Remove the shared mask', (scene) => removeSharedIn(scene, id, leaving, newId))
}

export function renameShared(id: string, name: string): void {
  useScene.getState().change('Rename the shared mask', (scene) => {
    const mask = scene.shared.find((one) => one.id === id)
    if (mask) mask.name = name
  })
}
