import { UserProblem } from '@welkinar/core'
import { addPhoto } from '../scene/addPhoto'
import type { RunJob, StoredRun } from '../storage/database'
import { photoOfRun, recipeOfRun } from '../storage/runs'

/** Makes a scene of a photo of a run, with the recipe as it was laid. Returns its id. */
export async function openAsScene(run: StoredRun, job: RunJob): Promise<string> {
  const photo = await photoOfRun(job.runId, job.photo)
  if (!photo) throw new UserProblem('This photo is not in the run any more.')
  const file = new File([photo.file], photo.fileName, { type: photo.file.type })
  const { id } = await addPhoto(file, false, recipeOfRun(run, job.recipe).source)
  return id
}
