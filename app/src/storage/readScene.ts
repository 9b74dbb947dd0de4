import {
  ageOf,
  checkedScene,
  documentVersion,
  isTooDeep,
  mend,
  Refusal,
  sceneSchema,
  upgradeDocument,
  type CheckedScene,
} from '@welkinar/core'
import type { StoredScene } from './database'

/** What was read of a stored scene. */
export interface ReadScene {
  readonly scene: CheckedScene
  /** What of the newest document could not be read, in words; undefined if all of it could. */
  readonly leftOut?: readonly string[]
  /** It was made by a newer build, so it may only be looked at. */
  readonly newer?: true
}

export type Reading = ReadScene | { readonly problem: string }

/** The newest document; or that with as little changed as makes it valid; or the last one that was. */
export function readScene({ document, lastValid }: Pick<StoredScene, 'document' | 'lastValid'>): Reading {
  if (isTooDeep(document)) return { problem: 'This scene is damaged: it is nested deeper than any.' }
  const age = ageOf(document)
  if (age === 'newer') return { problem: `This scene was made by a newer Welkinar (version ${(document as { version: number }).version}).` }
  if (age === 'newer minor') return readNewer(document)
  const upgraded = upgradeDocument(document)
  const newest = checkedScene(upgraded)
  if (!(newest instanceof Refusal)) return { scene: newest }
  const mended = mendedScene(upgraded)
  if (mended) return mended
  const before = lastValid === undefined || isTooDeep(lastValid) ? newest : checkedScene(upgradeDocument(lastValid))
  if (!(before instanceof Refusal)) return { scene: before, leftOut: [`it is shown as it was before (${newest.reason})`] }
  return { problem: `This scene is damaged: ${newest.reason}.` }
}

/** As much of a newer document as this build knows. */
function readNewer(document: unknown): Reading {
  const read = mendedScene({ ...(document as object), ...documentVersion })
  return read ? { ...read, newer: true } : { problem: 'This scene was made by a newer Welkinar, and cannot be shown by this one.' }
}

function mendedScene(document: unknown): ReadScene | undefined {
  const mended = mend(sceneSchema, document)
  const scene = mended && checkedScene(mended.value)
  return scene && !(scene instanceof Refusal) ? { scene, leftOut: mended.changes } : undefined
}
