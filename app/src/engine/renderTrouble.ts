import { effectOfNode, nameOfEffect, UserProblem, type PictureSource } from '@welkinar/core'
import { RenderProblem } from '@welkinar/core/pool'

/** Why something could not be computed, in words for the person: at which effect, if that is known. */
export function renderTrouble(error: unknown, source: PictureSource, what: string): string {
  if (error instanceof UserProblem) return error.message
  if (!(error instanceof RenderProblem)) return `${what} could not be computed: ${error instanceof Error ? error.message : String(error)}`
  const effect = error.nodeKey === undefined ? undefined : effectOfNode(source, error.nodeKey)
  return error.inWords(effect ? `“${nameOfEffect(effect)}”` : what)
}
