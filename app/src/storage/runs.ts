import { parseRecipe, UserProblem } from '@welkinar/core'
import { builtInRecipes, builtInSource, recipeSource, type RecipeSource } from '@welkinar/core/recipes'
import { database, isOutOfRoom, type RunJob, type RunPhoto, type StoredRun } from './database'

/** What a run is made of. */
export interface NewRun extends Pick<StoredRun, 'recipes' | 'outputs' | 'folder'> {
  readonly photos: readonly File[]
  /** Name of each file, by photo, recipe and output. */
  readonly names: readonly (readonly (readonly string[])[])[]
}

/** A run with how far it is. */
export interface Run {
  readonly run: StoredRun & { readonly id: number }
  readonly jobs: readonly RunJob[]
}

/** The run of this browser, with its files; null if there is none. The photos are not read for it: it is asked after each step. */
export async function currentRun(): Promise<Run | null> {
  return database.transaction('r', database.runs, database.jobs, async () => {
    const run = await database.runs.orderBy('id').last()
    if (run?.id === undefined) return null
    const jobs = await database.jobs.where('[runId+index]').between([run.id, -Infinity], [run.id, Infinity]).toArray()
    return { run: { ...run, id: run.id }, jobs }
  })
}

/** Stores a run in the place of the one before. @throws UserProblem if there is no room; nothing is stored then */
export async function addRun({ recipes, outputs, folder, photos, names }: NewRun): Promise<number> {
  try {
    return await database.transaction('rw', database.runs, database.runPhotos, database.jobs, async () => {
      await clear()
      const runId = (await database.runs.add({ made: Date.now(), recipes, outputs, ...(folder && { folder }) }))!
      await database.runPhotos.bulkAdd(photos.map((file, index) => ({ runId, index, fileName: file.name, file })))
      const jobs: RunJob[] = []
      photos.forEach(({ name: photoName }, photo) =>
        recipes.forEach((__, recipe) =>
          outputs.forEach((___, output) => {
            const name = names[photo]?.[recipe]?.[output] ?? ''
            jobs.push({ runId, index: jobs.length, photo, recipe, output, photoName, name, state: 'waiting', begun: 0, words: [] })
          }),
        ),
      )
      await database.jobs.bulkAdd(jobs)
      return runId
    })
  } catch (error) {
    if (!isOutOfRoom(error)) throw error
    throw new UserProblem('These photos cannot be kept for the run: there is no room left in this browser’s storage. Take fewer at a time.')
  }
}

async function clear(): Promise<void> {
  await Promise.all([database.runs.clear(), database.runPhotos.clear(), database.jobs.clear()])
}

/** Forgets the run, with what it has made and nobody has saved. */
export async function removeRun(): Promise<void> {
  await database.transaction('rw', database.runs, database.runPhotos, database.jobs, clear)
}

export async function runOf(id: number): Promise<StoredRun | undefined> {
  return database.runs.get(id)
}

/** The first file that is still to be made. */
export async function nextJob(runId: number): Promise<RunJob | undefined> {
  return (await database.jobs.where('[runId+state]').equals([runId, 'waiting']).sortBy('index'))[0]
}

/** Notes something of a file of a run, if that is still there. */
export async function noteJob({ runId, index }: RunJob, part: Partial<RunJob>): Promise<void> {
  await database.jobs.update([runId, index], part)
}

export async function photoOfRun(runId: number, index: number): Promise<RunPhoto | undefined> {
  return database.runPhotos.get([runId, index])
}

/** Has the files that failed made once more. */
export async function tryAgain(runId: number): Promise<void> {
  await database.jobs.where('[runId+state]').equals([runId, 'failed']).modify({ state: 'waiting', begun: 0, words: [] })
}

/** A recipe of a run. @throws UserProblem if it cannot be read */
export function recipeOfRun({ recipes }: StoredRun, index: number): { readonly name: string; readonly source: RecipeSource } {
  const given = recipes[index]
  if (given && 'builtIn' in given) {
    const builtIn = builtInRecipes.find(({ id }) => id === given.builtIn)
    if (!builtIn) throw new UserProblem(`There is no built-in recipe “${given.builtIn}” any more.`)
    return { name: builtIn.name, source: builtInSource(builtIn) }
  }
  const recipe = parseRecipe(JSON.stringify(given?.document ?? null), 'the recipe of the run')
  return { name: recipe.name, source: recipeSource(recipe) }
}
