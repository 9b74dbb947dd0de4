import { framedGraph, type Scene } from '@welkinar/core'

/** A moment of the loop at which nothing that moves stands as it stands at its beginning. */
const ELSEWHERE = 0.37

/** Whether anything in a scene moves. */
export function moves(scene: Scene): boolean {
  return framedGraph({ ...scene, phase: ELSEWHERE }).key !== framedGraph(scene).key
}
