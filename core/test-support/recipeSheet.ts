import sharp from 'sharp'
import type { Kernels } from '../src/graph/operation'
import { noMarks } from '../src/model/marks'
import { readPhoto } from '../src/reading/readPhoto'
import { builtInRecipes, type BuiltInRecipe } from '../src/recipes/builtIn'
import { makeBuiltIn } from '../src/recipes/makeBuiltIn'
import { sceneGraph } from '../src/render/sceneGraph'
import type { SheetCell } from './contactSheet'
import { evaluatorFor, photoFrom, renderAll } from './pictures'

const READ_AT = 1500

/** Built-in recipes as pictures on photo files with nothing marked, recipe by recipe. @param width px of each picture */
export async function* recipePictures(
  kernels: Kernels,
  files: readonly string[],
  width: number,
  recipes: readonly BuiltInRecipe[] = builtInRecipes,
): AsyncGenerator<SheetCell & { readonly recipe: string; readonly file: string }> {
  const photos = await Promise.all(
    files.map(async (file) => {
      const { data, info } = await sharp(file)
        .resize(READ_AT, READ_AT, { fit: 'inside' })
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true })
      const photo = photoFrom(kernels, file, info.width, info.height, data)
      return { photo, marks: { ...noMarks, reading: readPhoto(kernels, photo) } }
    }),
  )
  for (const one of recipes) {
    for (const [i, { photo, marks }] of photos.entries()) {
      const { effects } = makeBuiltIn(one, { photo, marks })
      const shown = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects, marks }), photo, width / photo.width)
      yield { words: one.name, recipe: one.id, file: files[i] ?? '', ...shown }
    }
  }
}
