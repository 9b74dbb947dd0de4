import { z } from 'zod'

/**
 * Version of all documents: scenes, recipes, marks. `version` rises when older builds would read a document wrongly. `minor` rises with each new key or kind (`version.test.ts` sees
 * to it): a document of a higher minor holds something that this build does not know, so it is shown as far as that goes, and never written.
 */
export const documentVersion = { version: 3, minor: 3 } as const

/** The keys of a document that say so. Those of earlier versions are filled when it is upgraded. */
export const versionShape = { version: z.literal(documentVersion.version), minor: z.int().min(0).max(documentVersion.minor) }

/** What a document says of its version. */
export type Age = 'known' | 'newer minor' | 'newer'

/** Whether a document was made by a newer build: then `newer` is read by it only, and of a `newer minor` as much as is known. */
export function ageOf(document: unknown): Age {
  const { version, minor = 0 } = (document ?? {}) as { version?: unknown; minor?: unknown }
  if (typeof version !== 'number') return 'known'
  if (version > documentVersion.version) return 'newer'
  return version === documentVersion.version && typeof minor === 'number' && minor > documentVersion.minor ? 'newer minor' : 'known'
}
