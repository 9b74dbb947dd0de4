import { lookOf, newEffect, type Effect, type Size } from '@welkinar/core'

const known = new Map<string, Effect>()

/** What the controls of an effect were when it was added: its starting look, or the kind's first. */
export function startingControls(effect: Effect, photo: Size): object {
  return startingEffect(effect, photo).controls
}

/** The effect as it was when it was added, with another id. */
export function startingEffect(effect: Effect, photo: Size): Effect {
  const look = lookOf(effect)
  const key = `${effect.kind} ${look.id} ${photo.width} ${photo.height}`
  let start = known.get(key)
  if (!start) {
    start = newEffect(photo, { kind: effect.kind, id: 'start', look: look.id })
    known.set(key, start)
  }
  return start
}
