import type { PhotoDefinition } from './photo'
import { add, cross, dot, normalise, scale, subtract, type Vector } from './tracer/vector'

export type Camera = PhotoDefinition['camera']

/** How a camera looks: three directions, and half the width of what it sees at a distance of 1. */
export interface Sight {
  readonly forward: Vector
  readonly right: Vector
  readonly up: Vector
  readonly half: number
}

export function sightOf({ place, target, fieldOfView, roll = 0 }: Camera): Sight {
  const forward = normalise(subtract(target, place))
  const level = normalise(cross([0, 1, 0], forward))
  const upright = cross(forward, level)
  const angle = (roll * Math.PI) / 180
  return {
    forward,
    right: add(scale(level, Math.cos(angle)), scale(upright, Math.sin(angle))),
    up: add(scale(upright, Math.cos(angle)), scale(level, -Math.sin(angle))),
    half: Math.tan((fieldOfView * Math.PI) / 360),
  }
}

/** Where a direction is seen: parts of the width from the middle, to the right and up; undefined behind the camera. */
export function seenAt(sight: Sight, direction: Vector): { readonly u: number; readonly v: number } | undefined {
  const depth = dot(direction, sight.forward)
  if (depth <= 0) return undefined
  const k = 1 / (2 * sight.half * depth)
  return { u: dot(direction, sight.right) * k, v: dot(direction, sight.up) * k }
}
