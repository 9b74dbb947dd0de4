import { unzipSync, zipSync, type Zippable } from 'fflate'
import { z } from 'zod'
import { fileIdOf } from '../photo/pictureIds'
import { parseDocument } from '../model/parseDocument'
import { parseRecipe, picturesOfStack, type Recipe } from '../model/recipe'
import { UserProblem } from '../model/userProblem'
import { documentVersion, versionShape } from '../model/version'

// A file `.welkinar` is a zip (PKWARE APPNOTE): `holds.json` says what is in it, `recipes/1.json` … are recipes, `pictures/…` the files that their masks and overlays read, as they came.

/** Ending of a file that holds recipes with their pictures. */
export const BUNDLE_ENDING = '.welkinar'

const holdsSchema = z.strictObject({
  format: z.literal('welkinar-bundle'),
  ...versionShape,
  holds: z.literal('recipes'),
  recipes: z.int().min(1).max(500),
  pictures: z.array(z.strictObject({ id: z.string().min(1).max(200), file: z.string().regex(/^pictures\/\d+$/) })).max(1000),
})

/** Bytes; more than that of one entry, or of all, is not unpacked. */
const MOST = { document: 32e6, picture: 400e6, all: 1.5e9 }
/** How many entries are looked at. */
const MOST_ENTRIES = 2000

/** Recipes and the files of the pictures that they read, by the id of the file. */
export interface Bundle {
  readonly recipes: readonly Recipe[]
  readonly pictures: ReadonlyMap<string, Uint8Array>
}

/** The ids of the picture files that recipes read. */
export function pictureFilesOf(recipes: readonly Recipe[]): string[] {
  return [...new Set(recipes.flatMap((recipe) => picturesOfStack(recipe).map(({ id }) => fileIdOf(id))))]
}

/** A bundle as a file. */
export function writeBundle({ recipes, pictures }: Bundle): Uint8Array<ArrayBuffer> {
  const files = [...pictures].map(([id, bytes], i) => ({ id, file: `pictures/${i + 1}`, bytes }))
  const holds = {
    format: 'welkinar-bundle',
    ...documentVersion,
    holds: 'recipes',
    recipes: recipes.length,
    pictures: files.map(({ id, file }) => ({ id, file })),
  }
  const text = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value, null, 2))
  const parts: Zippable = { 'holds.json': text(holds) }
  recipes.forEach((recipe, i) => (parts[`recipes/${i + 1}.json`] = text(recipe)))
  // Pictures are compressed as they are.
  for (const { file, bytes } of files) parts[file] = [bytes, { level: 0 }]
  return zipSync(parts) as Uint8Array<ArrayBuffer>
}

/**
 * Reads a bundle. Only what it says that it holds is unpacked, by names of our own: an entry is never a path.
 * @param digest SHA-256 of bytes, in hexadecimal digits: a picture that is another than it says is left out
 * @throws UserProblem naming the file, and what is wrong with it
 */
export async function readBundle(file: Uint8Array, fileName: string, digest: (bytes: Uint8Array) => Promise<string>): Promise<Bundle> {
  const budget = { left: MOST.all }
  const textOf = (name: string): string => {
    const bytes = unpacked(file, fileName, [name], MOST.document, budget)[name]
    if (!bytes) throw new UserProblem(`“${fileName}” is damaged: it says that it holds “${name}”, and does not.`)
    return new TextDecoder().decode(bytes)
  }
  if (!isZip(file)) throw new UserProblem(`“${fileName}” is no file of recipes.`)
  const has = unpacked(file, fileName, ['holds.json'], MOST.document, budget)['holds.json']
  if (!has) throw new UserProblem(`“${fileName}” is a zip, but holds no recipes.`)
  const holds = parseDocument(new TextDecoder().decode(has), fileName, holdsSchema, 'bundle')
  const recipes = Array.from({ length: holds.recipes }, (_, i) =>
    parseRecipe(textOf(`recipes/${i + 1}.json`), `${fileName}, recipe ${i + 1}`),
  )
  const wanted = new Set(pictureFilesOf(recipes))
  const named = holds.pictures.filter(({ id }) => wanted.has(id))
  const bytesOf = unpacked(
    file,
    fileName,
    named.map((one) => one.file),
    MOST.picture,
    budget,
  )
  const pictures = new Map<string, Uint8Array>()
  for (const { id, file: name } of named) {
    const bytes = bytesOf[name]
    if (bytes && (await digest(bytes)) === id) pictures.set(id, bytes)
  }
  return { recipes, pictures }
}

/** Whether a file is a zip with entries. */
export function isZip(file: Uint8Array): boolean {
  return file[0] === 0x50 && file[1] === 0x4b && file[2] === 3 && file[3] === 4
}

/** Entries of a zip by their names. What is larger than it may be, or than it says, is refused before it is unpacked. */
function unpacked(
  file: Uint8Array,
  fileName: string,
  names: readonly string[],
  most: number,
  budget: { left: number },
): Record<string, Uint8Array> {
  const wanted = new Set(names)
  let entries = 0
  try {
    return unzipSync(file, {
      filter: ({ name, originalSize }) => {
        if (++entries > MOST_ENTRIES) throw new UserProblem(`“${fileName}” holds more than ${MOST_ENTRIES} files.`)
        if (!wanted.delete(name)) return false
        budget.left -= originalSize
        if (originalSize > most || budget.left < 0) throw new UserProblem(`“${fileName}” would take too much room when it is unpacked.`)
        return true
      },
    })
  } catch (error) {
    if (error instanceof UserProblem) throw error
    throw new UserProblem(`“${fileName}” is damaged.`)
  }
}
