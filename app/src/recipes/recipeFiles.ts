import { fileIdOf, parseRecipe, picturesOfStack, reducedId, UserProblem, type Recipe } from '@welkinar/core'
import { BUNDLE_ENDING, isZip, pictureFilesOf, readBundle, writeBundle, type Bundle } from '@welkinar/core/recipes'
import { chooseFiles, safeFileName, saveFile } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { addPicture, loadPhotoFile, photoId } from '../storage/photos'
import { keepRecipes } from '../storage/recipes'

/** Hands recipes to the person as one file, with the pictures that they read. */
export function exportRecipes(recipes: readonly Recipe[], name: string): void {
  bundled(recipes)
    .then(({ file, missing }) => {
      saveFile(file, `${safeFileName(name)}${BUNDLE_ENDING}`)
      if (missing.length > 0) showNotice(`These pictures are not in this browser and did not go along: ${missing.join(', ')}.`)
    })
    .catch((error: unknown) => showProblem(error, 'Saving the recipes'))
}

async function bundled(recipes: readonly Recipe[]): Promise<{ readonly file: Blob; readonly missing: readonly string[] }> {
  const pictures = new Map<string, Uint8Array>()
  const missing: string[] = []
  for (const id of pictureFilesOf(recipes)) {
    const reference = recipes.flatMap(picturesOfStack).find((picture) => fileIdOf(picture.id) === id)
    const stored = reference && (await loadPhotoFile(reference.id))
    if (stored) pictures.set(id, new Uint8Array(await stored.file.arrayBuffer()))
    else if (reference) missing.push(reference.fileName)
  }
  return { file: new Blob([writeBundle({ recipes, pictures })], { type: 'application/zip' }), missing }
}

/** Lets the person choose files of recipes and keeps what they hold. @param then hears the ids of what was kept */
export function importRecipes(then: (ids: readonly number[]) => void): void {
  chooseFiles(`.json,application/json,${BUNDLE_ENDING},.zip`)
    .then((files) => (files.length > 0 ? keepFiles(files) : undefined))
    .then((ids) => ids && then(ids))
    .catch((error: unknown) => showProblem(error, 'Opening the recipes'))
}

/** Keeps the recipes of files; one that cannot be read does not keep the others away. Returns the ids of what was kept. */
async function keepFiles(files: readonly File[]): Promise<readonly number[]> {
  const ids: number[] = []
  const problems: unknown[] = []
  for (const file of files) {
    try {
      const { recipes, pictures } = await recipesIn(file)
      for (const recipe of recipes) await keepPictures(recipe, pictures)
      ids.push(...(await keepRecipes(recipes)))
    } catch (error) {
      problems.push(error)
    }
  }
  if (ids.length > 0) showNotice(ids.length === 1 ? 'The recipe is among your own now.' : `${ids.length} recipes are among your own now.`)
  if (problems.length > 0) {
    const words = problems.map((error) => (error instanceof UserProblem ? error.message : undefined))
    if (words.every((one) => one !== undefined)) showProblem(new UserProblem(words.join(' ')), 'Opening the recipes')
    else throw problems[words.indexOf(undefined)]
  }
  return ids
}

async function recipesIn(file: File): Promise<Bundle> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  if (!isZip(bytes)) return { recipes: [parseRecipe(new TextDecoder().decode(bytes), file.name)], pictures: new Map() }
  return readBundle(bytes, file.name, (picture) => photoId(new Blob([picture as Uint8Array<ArrayBuffer>])))
}

/** Keeps the pictures that a recipe reads, as scenes keep theirs. */
async function keepPictures(recipe: Recipe, pictures: Bundle['pictures']): Promise<void> {
  for (const { id, fileName } of picturesOfStack(recipe)) {
    const bytes = pictures.get(fileIdOf(id))
    if (!bytes || (await loadPhotoFile(id))) continue
    await addPicture({ id, fileName, file: new Blob([bytes as Uint8Array<ArrayBuffer>]), reduced: id === reducedId(fileIdOf(id)) })
  }
}
