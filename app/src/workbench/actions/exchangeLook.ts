import { frameOfSource, lookOf, newEffect, noMarks, type Effect, type Mix, type PictureSource } from '@welkinar/core'
import { masksAlike } from './masksAlike'

/**
 * An effect with another look of its kind: its place, its name, and where and how it is mixed stay as they are, these two as far as they were changed; all else is that of the look.
 */
export function withLook(effect: Effect, look: string, source: PictureSource): Effect {
  const { photo, marks = noMarks } = source
  const { kind, id, place } = effect
  const begin = (one: string): Effect => newEffect(photo, { kind, look: one, id, place, marks, frame: frameOfSource(source) })
  const [began, next] = [begin(lookOf(effect).id), begin(look)]
  const { name, on, group } = effect
  return {
    ...next,
    ...{ name, on, group },
    where: masksAlike(effect.where, began.where) ? next.where : effect.where,
    region: masksAlike(effect.region, began.region) ? next.region : effect.region,
    mix: changedMix(effect.mix, began.mix, next.mix),
  } as Effect
}

function changedMix(mix: Mix, began: Mix, next: Mix): Mix {
  return {
    mode: mix.mode === began.mode ? next.mode : mix.mode,
    amount: mix.amount === began.amount ? next.amount : mix.amount,
    linear: mix.linear === began.linear ? next.linear : mix.linear,
  }
}
