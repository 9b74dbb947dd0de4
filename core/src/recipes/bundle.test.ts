import { createHash } from 'node:crypto'
import { unzipSync, zipSync, type Zippable } from 'fflate'
import { describe, expect, it } from 'vitest'
import { newEffect } from '../effects/newEffect'
import { newMask } from '../masks/newMask'
import { noMarks } from '../model/marks'
import { parseRecipe, type Recipe } from '../model/recipe'
import { documentVersion } from '../model/version'
import { builtInRecipes } from './builtIn'
import { isZip, pictureFilesOf, readBundle, writeBundle } from './bundle'
import { makeBuiltIn } from './makeBuiltIn'

const photo = { width: 3000, height: 2000 }
const sha256 = (bytes: Uint8Array) => Promise.resolve(createHash('sha256').update(bytes).digest('hex'))
const picture = new TextEncoder().encode('the bytes of a picture')
const pictureId = await sha256(picture)

/** A recipe whose rain is masked by a picture. */
function withPicture(): Recipe {
  const effect = newEffect(photo, { kind: 'rain', id: 'rain' })
  const mask = newMask(photo, { kind: 'picture', id: 'mask', join: 'keep', marks: noMarks })
  Object.assign(mask, { picture: { id: `${pictureId}.colour`, fileName: 'p.png', width: 10, height: 10 } })
  effect.where.masks.push(mask)
  const recipe = makeBuiltIn(builtInRecipes[0]!, { photo, marks: noMarks })
  return parseRecipe(JSON.stringify({ ...recipe, name: 'Masked', effects: [effect] }), 'masked.json')
}

const recipes = [withPicture(), makeBuiltIn(builtInRecipes[1]!, { photo, marks: noMarks })]
const good = writeBundle({ recipes, pictures: new Map([[pictureId, picture]]) })

/** The good bundle with some of its entries changed; undefined takes one out. */
function changed(parts: Readonly<Record<string, Uint8Array | string | undefined>>): Uint8Array {
  const entries: Zippable = { ...unzipSync(good) }
  for (const [name, part] of Object.entries(parts)) {
    if (part === undefined) delete entries[name]
    else entries[name] = typeof part === 'string' ? new TextEncoder().encode(part) : part
  }
  return zipSync(entries)
}

const holds = JSON.parse(new TextDecoder().decode(unzipSync(good)['holds.json'])) as object

/** A zip whose entry says that it is small and unpacks to far more, or says that it is large. */
function lying(size: number): Uint8Array {
  const bomb = changed({ 'recipes/1.json': new Uint8Array(40e6) })
  const view = new DataView(bomb.buffer)
  for (let at = 0; at + 46 < bomb.length; at++) {
    // The head of an entry in the central directory (PKWARE APPNOTE 4.3.12): its uncompressed size at 24, the length of its name at 28.
    if (view.getUint32(at, true) !== 0x02014b50) continue
    const name = new TextDecoder().decode(bomb.subarray(at + 46, at + 46 + view.getUint16(at + 28, true)))
    if (name === 'recipes/1.json') view.setUint32(at + 24, size, true)
  }
  return bomb
}

describe('a file of recipes', () => {
  it('gives back what was put in, with the pictures that are read', async () => {
    expect(isZip(good)).toBe(true)
    expect(pictureFilesOf(recipes)).toEqual([pictureId])
    const read = await readBundle(good, 'a.welkinar', sha256)
    expect(read.recipes).toEqual(recipes)
    expect([...read.pictures]).toEqual([[pictureId, picture]])
  })

  it.each([
    ['another than it says', changed({ 'pictures/1': 'other bytes' })],
    ['gone', changed({ 'pictures/1': undefined })],
  ])('a picture that is %s is left out, the recipes stay', async (_, file) => {
    const { recipes: read, pictures } = await readBundle(file, 'a.welkinar', sha256)
    expect(pictures.size).toBe(0)
    expect(read).toEqual(recipes)
  })

  it('what it does not say that it holds is not looked at, whatever path it has', async () => {
    const { recipes: read } = await readBundle(changed({ '../../etc/passwd': 'x', 'recipes/99.json': '{' }), 'a.welkinar', sha256)
    expect(read).toEqual(recipes)
  })

  it.each([
    ['no zip', new TextEncoder().encode('{}'), 'is no file of recipes'],
    ['another zip', zipSync({ 'a.txt': new Uint8Array(3) }), 'is a zip, but holds no recipes'],
    ['cut', good.slice(0, good.length - 40), 'is damaged'],
    ['without a recipe', changed({ 'recipes/2.json': undefined }), 'it says that it holds “recipes/2.json”, and does not'],
    ['with a broken recipe', changed({ 'recipes/2.json': '{' }), 'recipe 2” is not a recipe: it is not valid JSON'],
    [
      'of a newer version',
      changed({ 'holds.json': JSON.stringify({ ...holds, version: documentVersion.version + 1 }) }),
      'was made by a newer Welkinar',
    ],
    [
      'of paths upwards',
      changed({ 'holds.json': JSON.stringify({ ...holds, pictures: [{ id: 'a', file: '../a' }] }) }),
      'is not a valid bundle: at pictures.0.file',
    ],
    ['of too large an entry', changed({ 'recipes/1.json': new Uint8Array(40e6) }), 'would take too much room'],
    ['that says it is huge', lying(4e9), 'would take too much room'],
    ['of 3000 entries', changed(Object.fromEntries(Array.from({ length: 3000 }, (_, i) => [`${i}`, '']))), 'holds more than 2000 files'],
  ])('one that is %s is refused in words', async (_, file, words) => {
    await expect(readBundle(file, 'a.welkinar', sha256)).rejects.toThrow(words)
  })

  it('one that says it is small unpacks to no more than it says', async () => {
    await expect(readBundle(lying(1000), 'a.welkinar', sha256)).rejects.toThrow(/“a.welkinar.*(damaged|not valid JSON)/)
  })
})
