import type { Scene } from '@welkinar/core'
import { produce } from 'immer'
import { useMemo } from 'react'
import { sheetOf, type Edges, type ShownTrial } from './sheet'
import { useTrials } from './trialsStore'

/** The variants of a scene that are on the sheet. */
export function useVariants(scene: Scene): { readonly variants: readonly ShownTrial[]; readonly edges: Edges | undefined } {
  const { across, down, away, names } = useTrials()
  const sheet = useMemo(() => sheetOf(scene, across, down), [scene, across, down])
  const made = useMemo(
    () => sheet.trials.map((trial): ShownTrial => ({ ...trial, scene: produce(scene, (draft) => trial.change(draft)) })),
    [sheet, scene],
  )
  const variants = useMemo(
    () =>
      made
        .filter(({ id }) => !away.includes(id))
        .map((one) => (names[one.id] === undefined ? one : { ...one, words: names[one.id] ?? '' })),
    [made, away, names],
  )
  // With gaps in it the sheet has no edges.
  return { variants, edges: away.length > 0 ? undefined : sheet.edges }
}
