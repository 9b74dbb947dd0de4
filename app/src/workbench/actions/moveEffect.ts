import { depthPlaces, type DepthPlace, type Effect, type Scene } from '@welkinar/core'
import { settleGroups } from './groups'

/**
 * Moves an effect to where another one stands, or to the near end of a place of the depth line. Among the members of a group it becomes one;
 * in an empty place it is in none.
 */
export function moveEffect(scene: Scene, id: string, over: string): void {
  const moved = scene.effects.find((effect) => effect.id === id)
  if (!moved) return
  const from = scene.effects.indexOf(moved)
  const place = depthPlaces.find((candidate) => candidate === over)
  const target = scene.effects.findIndex((effect) => effect.id === over)
  scene.effects.splice(from, 1)
  if (place) insertEffect(scene, { ...moved, place, group: null })
  else if (target >= 0) {
    const neighbour = scene.effects.find((effect) => effect.id === over)
    scene.effects.splice(target, 0, { ...moved, place: neighbour?.place ?? moved.place, group: neighbour?.group ?? null })
  } else scene.effects.splice(from, 0, moved)
  settleGroups(scene)
}

/** Puts an effect in front of all others of its place, and behind those of nearer places. */
export function insertEffect(scene: Pick<Scene, 'effects'>, effect: Effect): void {
  const rank = (place: DepthPlace): number => depthPlaces.indexOf(place)
  const next = scene.effects.findIndex((other) => rank(other.place) > rank(effect.place))
  scene.effects.splice(next < 0 ? scene.effects.length : next, 0, effect)
}

/**
 * Moves an effect one step farther (-1) or nearer (1): past its neighbour in the same place, into or out of a group at its edge, or into the
 * next place.
 */
export function stepEffect(scene: Scene, id: string, by: -1 | 1): void {
  const index = scene.effects.findIndex((effect) => effect.id === id)
  const effect = scene.effects[index]
  if (!effect) return
  const neighbour = scene.effects[index + by]
  const beside = neighbour?.place === effect.place ? neighbour : undefined
  if (effect.group !== null && beside?.group !== effect.group) effect.group = null
  else if (beside && beside.group !== effect.group) effect.group = beside.group
  else if (beside) {
    scene.effects[index] = beside
    scene.effects[index + by] = effect
  } else {
    const place = depthPlaces[depthPlaces.indexOf(effect.place) + by]
    if (place) effect.place = place
  }
  settleGroups(scene)
}
