import { writeFile } from 'node:fs/promises'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { builtInRecipes } from '../src/recipes/builtIn'
import { contactSheet, type SheetCell } from './contactSheet'
import { loadKernels } from './kernels'
import { lookSheet } from './lookSheet'
import { recipePictures } from './recipeSheet'

// Run by `npm run docs`, from the top of the repository.
const top = pathToFileURL(`${process.cwd()}/`)
const photos = new URL('demo/photos/', top)
const kernels = await loadKernels()
await writeFile(new URL('docs/looks.jpg', top), await lookSheet(kernels, photos))

/** The sample photo that each sort of recipe is shown on. */
const photoOf = { Rain: 'ferry-quay', Snow: 'survey-hut', Fog: 'pine-inlet', Sun: 'headland', Night: 'moored-skiff', Finish: 'headland' }
const cells: SheetCell[] = []
for (const recipe of builtInRecipes) {
  const file = fileURLToPath(new URL(`${photoOf[recipe.tags[0]]}.jpg`, photos))
  for await (const cell of recipePictures(kernels, [file], 360, [recipe])) cells.push(cell)
}
await writeFile(new URL('docs/recipes.jpg', top), await contactSheet(cells, 5, 360))
