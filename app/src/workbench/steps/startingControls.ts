import { definitionOf, newEffect, type Effect, type Size } from '@welkinar/core'

const known = new Map<string, Effect>()

/** What the controls of an effect were when it was added: the starting look of its name, or the kind's first. */
export function startingControls(effect: Effect, photo: Size): object {
  return startingEffect(effect, photo).controls
}

/** The effect as it was when it was added, with another id. */
export function startingEffect(effect: Effect, photo: Size): Effect {
  const { startingLooks } = definitionOf(effect.kind)
  const look = startingLooks.find(({ name }) => name === effect.name) ?? startingLooks[0]
  const key = `${effect.kind} ${look?.name} ${photo.width} ${photo.height}`
  let start = known.get(key)
  if (!start) {
    start = newEffect(photo, { kind: effect.kind, id: 'start', ...(look ? { look: look.name } : {}) })
    known.set(key, start)
  }
  return start
}
