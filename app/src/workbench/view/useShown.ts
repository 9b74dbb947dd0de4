import { findOwner, frameOf, withMaskList, type Effect, type Frame, type MaskListRef, type PictureSource } from '@welkinar/core'
import { useMemo } from 'react'
import { editedList, useScene } from '../../scene/sceneStore'

/** The list of masks that is edited, as the same object as long as it is the same list. */
export function useEditedList(source: PictureSource): MaskListRef | undefined {
  const selectedId = useScene((state) => state.selectedId)
  const openStep = useScene((state) => state.openStep)
  const edited = editedList(findOwner(source, selectedId), openStep)
  return useMemo(
    () => edited && { owner: edited.owner, list: edited.list },
    [edited?.owner, edited?.list], // eslint-disable-line react-hooks/exhaustive-deps -- the address is these two
  )
}

/** What is shown of the photo; all of it, turned, while it is being cropped. */
export function useShownFrame({ photo, groundwork }: PictureSource): Frame {
  const cropping = useScene((state) => state.tool?.kind === 'crop')
  return useMemo(() => {
    const frame = frameOf(photo, groundwork?.crop)
    return cropping ? { x: 0, y: 0, width: photo.width, height: photo.height, turn: frame.turn } : frame
  }, [photo, groundwork, cropping])
}

/** The scene as the view shows it: with what is only being tried, or without the masks of the list that is edited while that is held. */
export function useShownSource(source: PictureSource): PictureSource {
  const trial = useScene((state) => state.trial)
  const list = useEditedList(source)
  const unmasked = useScene((state) => state.holdingUnmasked)
  const withoutId = useScene((state) => (state.holdingWithout ? state.selectedId : undefined))
  const chosenMaskId = useScene((state) => (state.maskScope === 'one' ? state.chosenMaskId : undefined))
  const placedId = useScene((state) => state.placing?.effectId)
  return useMemo(() => {
    const tried = without(weakened(trial ?? source, placedId), withoutId)
    if (!unmasked || !list) return tried
    const bare = withMaskList(tried, list, ({ masks, hold }) => ({
      hold,
      masks: masks.filter(({ id }) => chosenMaskId !== undefined && id !== chosenMaskId),
    }))
    return Object.freeze(bare)
  }, [trial, source, unmasked, list, chosenMaskId, placedId, withoutId])
}

/** The scene as if an effect or group were switched off. */
function without(source: PictureSource, id: string | undefined): PictureSource {
  if (id === undefined) return source
  const off = <T extends { readonly id: string }>(one: T): T => (one.id === id ? { ...one, on: false } : one)
  return Object.freeze({ ...source, effects: source.effects.map(off), groups: (source.groups ?? []).map(off) })
}

/** How much of an effect is seen while its place is being looked for. */
const PLACING_PART = 0.25

function weakened(source: PictureSource, effectId: string | undefined): PictureSource {
  if (effectId === undefined) return source
  const weak = (effect: Effect): Effect => ({ ...effect, mix: { ...effect.mix, amount: effect.mix.amount * PLACING_PART } })
  return Object.freeze({ ...source, effects: source.effects.map((effect) => (effect.id === effectId ? weak(effect) : effect)) })
}
