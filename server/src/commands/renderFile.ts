import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import {
  effectOfNode,
  exifFor,
  exifOf,
  exifProblem,
  fileIdOf,
  framedGraph,
  frameOfSource,
  gridAt,
  groundworkFor,
  inColourId,
  intersect,
  marksFor,
  nameOfEffect,
  noMarks,
  notRead,
  parseMarks,
  parseRecipe,
  picturesOfStack,
  regionOnGrid,
  stackFor,
  stackWithout,
  UserProblem,
  usesReading,
  wideId,
  workingSpaceOf,
  type Grid,
  type PictureReference,
  type PictureSource,
  type Rect,
} from '@welkinar/core'
import { priorities, RenderProblem, type Opened, type RenderPool } from '@welkinar/core/pool'
import { createNodePool } from '../nodePool'
import { readInput, readTextInput } from './inputFile'
import { OutputFile } from './outputFile'
import type { RenderTask } from './renderOptions'

const TILE = 512

/** The part of the frame that is asked for, on the grid; all of it without a region. */
function rectFor(region: Rect | undefined, grid: Grid, source: PictureSource): Rect {
  const frame = frameOfSource(source)
  const rect = regionOnGrid(region ? intersect(region, frame) : frame, grid)
  if (rect.width > 0 && rect.height > 0) return rect
  const { x, y, width, height } = frame
  const from = x > 0 || y > 0 ? ` from ${x}, ${y} on` : ''
  throw new UserProblem(`--region lies outside the photo, which is ${width} × ${height} px${from}.`)
}

/** Renders a photo with a recipe and writes the file. @throws UserProblem if it cannot be done; nothing is written then */
export async function renderFile(task: RenderTask): Promise<void> {
  const { out, overwrite, photo, recipe, marks } = task
  const file = await OutputFile.begin(out, overwrite, { 'the photo': photo, 'the recipe': recipe, 'the file of marks': marks })
  try {
    await file.finish(await picture(task))
  } catch (error) {
    await file.discard()
    throw error
  }
}

/** The file of a task, in memory. */
async function picture(task: RenderTask): Promise<Blob> {
  const recipe = parseRecipe(await readTextInput(task.recipe), basename(task.recipe))
  const bytes = await readInput(task.photo)
  const pool = await createNodePool(task.threads, task.memory === undefined ? {} : { mostMemory: task.memory * 1e6 })
  try {
    const opened = await openInItsColours(bytes, task, pool)
    opened.notices.forEach((notice) => console.error(notice))
    const { photo } = opened
    const { width, height } = photo
    report(task, { step: 'opened', width, height })
    const grid = gridAt(photo, task.scale)
    const stack = stackFor(recipe, photo)
    const missing = await openPictures(picturesOfStack(stack), dirname(task.recipe), pool)
    const unmarked: PictureSource = { photo, amount: recipe.amount, ...stackWithout(stack, missing) }
    const source = { ...unmarked, ...(await readMarks(task, pool, unmarked)) }
    const rect = rectFor(task.region, grid, source)
    const exif = exifFor(exifOf(bytes), rect, task.place === 'keep', task.colours)
    const leftOut = exifProblem(task.format, exif)
    if (leftOut) console.error(leftOut)
    const request = {
      node: framedGraph(source),
      grid,
      rect,
      tileSize: TILE,
      priority: priorities.export,
      working: workingSpaceOf(photo.id),
      options: { format: task.format, quality: task.quality, depth: task.bits, space: task.colours },
      exif,
      onProgress: (done: number) => report(task, { step: 'computed', part: Number(done.toFixed(4)) }),
    }
    return await pool.renderFile(request).catch((error: unknown) => {
      if (!(error instanceof RenderProblem)) throw error
      const effect = error.nodeKey === undefined ? undefined : effectOfNode(source, error.nodeKey)
      throw new UserProblem(error.inWords(effect ? `“${nameOfEffect(effect)}”` : 'The picture'))
    })
  } finally {
    pool.dispose()
  }
}

/** Says how far it is, if that is asked for. */
function report({ progress }: RenderTask, what: object): void {
  if (progress) console.log(JSON.stringify(what))
}

/** Opens a photo in sRGB, or once more in the wider space if sRGB does not have its colours. */
async function openInItsColours(
  bytes: Uint8Array,
  { photo, reduce }: RenderTask,
  pool: RenderPool,
): Promise<Extract<Opened, { wide: boolean }>> {
  const id = inColourId('photo')
  const opened = await pool.openPhoto(id, bytes, basename(photo), reduce)
  if ('problem' in opened) throw new UserProblem(opened.tooLarge ? `${opened.problem} --reduce opens it smaller.` : opened.problem)
  if (!opened.wide) return opened
  await pool.dropPhoto(id)
  const again = await pool.openPhoto(wideId(id), bytes, basename(photo), reduce)
  if ('problem' in again) throw new UserProblem(again.problem)
  return again
}

/** Opens the pictures that a recipe reads, which lie beside it. Returns the ids of those that are not there, or are others; it is said which. */
async function openPictures(pictures: readonly PictureReference[], folder: string, pool: RenderPool): Promise<string[]> {
  const missing: string[] = []
  for (const { id, fileName } of pictures) {
    const bytes = await readFile(join(folder, basename(fileName))).catch(() => undefined)
    const isIt = bytes && createHash('sha256').update(bytes).digest('hex') === fileIdOf(id)
    const opened = isIt ? await pool.openPhoto(id, bytes, fileName, true) : undefined
    if (opened && 'photo' in opened) continue
    missing.push(id)
    const why = opened?.problem ?? (bytes ? 'The file beside the recipe is another.' : 'It is not beside the recipe.')
    console.error(`The recipe reads the picture “${fileName}”; what reads it is left out. ${why}`)
  }
  return missing
}

/** Marks, groundwork and depth of the photo, if a file with them is given. */
async function readMarks({ marks: path, reading }: RenderTask, pool: RenderPool, unmarked: PictureSource): Promise<Partial<PictureSource>> {
  const { photo } = unmarked
  // Without marks it goes by what the photo shows, as a new scene does, if that changes anything.
  if (path === undefined)
    return { marks: { ...noMarks, reading: reading === 'yes' && usesReading(unmarked) ? await pool.readPhoto(photo.id) : notRead } }
  const file = parseMarks(await readTextInput(path), basename(path))
  const marks = marksFor(file, photo)
  const groundwork = groundworkFor(file, photo)
  if (!file.depth) return { marks, groundwork }
  const { file: name, ...depth } = file.depth
  const opened = await pool.openPhoto('depth', await readInput(join(dirname(path), name)), name, true)
  if ('problem' in opened) throw new UserProblem(opened.problem)
  const { width, height } = opened.photo
  return { marks, groundwork, depth: { ...depth, picture: { id: 'depth', fileName: name, width, height } } }
}
