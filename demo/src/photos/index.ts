import type { PhotoDefinition } from '../photo'
import { ferryQuay } from './ferryQuay/scene'
import { headlandPhoto } from './headland/scene'
import { lanternPhoto } from './lantern/scene'
import { pineInlet } from './pineInlet/scene'
import { skiffPhoto } from './skiff/scene'
import { surveyHut } from './surveyHut/scene'

/** All sample photos, in the order of the Shelf. */
export const photos: readonly PhotoDefinition[] = [ferryQuay, headlandPhoto, pineInlet, skiffPhoto, surveyHut, lanternPhoto]

/** @throws Error if there is no such photo */
export function photoNamed(name: string): PhotoDefinition {
  const photo = photos.find((candidate) => candidate.name === name)
  if (!photo) throw new Error(`There is no sample photo named “${name}”.`)
  return photo
}
