import { findOwner, type Owner, type Scene } from '@welkinar/core'
import type { SceneChange } from '../scene/history'
import { variationsOf, type ChosenValues, type Variation } from './variations'

/** One of the two directions of a sheet: what is varied, of which effect or group, at which values. */
export interface Axis extends ChosenValues {
  readonly of: string
  readonly variation: string
}

/** One picture of the sheet. */
interface Trial {
  readonly id: string
  readonly words: string
  readonly change: SceneChange
}

/** A trial with the scene as it would be. */
export interface ShownTrial extends Trial {
  readonly scene: Scene
  /** Where it is stored, if it was kept. */
  readonly stateId?: number
}

/** The words at the edges of a sheet of two axes. */
export interface Edges {
  readonly columns: readonly string[]
  readonly rows: readonly string[]
}

export interface Sheet {
  readonly trials: readonly Trial[]
  readonly edges: Edges | undefined
}

/** More pictures than this nobody looks through, and each is computed. */
const MOST_TRIALS = 200

/** What is varied along an axis, if the scene still has it. */
export function variationOf(scene: Scene, axis: Axis): { readonly owner: Owner; readonly variation: Variation } | undefined {
  const owner = findOwner(scene, axis.of)
  const variation = owner && variationsOf(scene, owner).find(({ id }) => id === axis.variation)
  return variation && { owner, variation }
}

/** The sheet with an effect's seeds, or with what can be varied of it first. */
export function firstAxis(scene: Scene, owner: Owner): Axis {
  return { of: owner.id, variation: variationsOf(scene, owner)[0]?.id ?? 'amount', count: FIRST_COUNT, round: 0 }
}

export const FIRST_COUNT = 6

/** All pictures of a sheet: of one axis in a row that wraps, of two every value of one with every value of the other. */
export function sheetOf(scene: Scene, across: Axis | undefined, down: Axis | undefined): Sheet {
  const values = [across, down].map((axis) => axis && (variationOf(scene, axis)?.variation.values(axis) ?? undefined))
  const [columns, rows] = values
  if (!columns) return { trials: [], edges: undefined }
  if (!rows) return { trials: columns.slice(0, MOST_TRIALS), edges: undefined }
  const some = rows.slice(0, Math.max(1, Math.floor(MOST_TRIALS / columns.length)))
  const trials = some.flatMap((row) =>
    columns.map((column) => ({
      id: `${column.id}, ${row.id}`,
      words: `${column.words}, ${row.words}`,
      change: (draft: Scene) => {
        // A look takes the place of numbers: what says less comes after it.
        for (const { change } of row.id.startsWith('look') ? [row, column] : [column, row]) change(draft)
      },
    })),
  )
  return { trials, edges: { columns: columns.map(({ words }) => words), rows: some.map(({ words }) => words) } }
}
