import { createHash } from 'node:crypto'
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
  layRecipe,
  marksFor,
  nameOfEffect,
  noGroundwork,
  noMarks,
  notRead,
  parseMarks,
  picturesOfStack,
  regionOnGrid,
  stackWithout,
  UserProblem,
  wideId,
  workingSpaceOf,
  type Grid,
  type PictureReference,
  type PictureSource,
  type Rect,
  type SceneMarks,
} from '@welkinar/core'
import { priorities, RenderProblem, type Opened, type RenderPool } from '@welkinar/core/pool'
import { createNodePool } from '../nodePool'
import { readInput, readTextInput } from './inputFile'
import { OutputFile } from './outputFile'
import { readRecipe, type RecipeInput } from './recipeInput'
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
  const say = (notice: string): void => console.error(notice)
  try {
    // What cannot be read is found before threads begin.
    const recipe = await readRecipe(task.recipe)
    const bytes = await readInput(task.photo)
    const pool = await poolFor(task)
    try {
      await file.finish(await renderPicture(task, { recipe, bytes }, pool, say))
    } finally {
      pool.dispose()
    }
  } catch (error) {
    await file.discard()
    throw error
  }
}

/** The threads that a task asks for. */
export function poolFor({ threads, memory }: Pick<RenderTask, 'threads' | 'memory'>): Promise<RenderPool> {
  return createNodePool(threads, memory === undefined ? {} : { mostMemory: memory * 1e6 })
}

/** What a task reads. */
interface TaskInput {
  readonly recipe: RecipeInput
  readonly bytes: Uint8Array
}

/** The file of a task, in memory. The pool holds nothing of it afterwards. @param say hears what the person ought to know */
export async function renderPicture(task: RenderTask, input: TaskInput, pool: RenderPool, say: (notice: string) => void): Promise<Blob> {
  const { bytes } = input
  const held: string[] = []
  try {
    const opened = await openInItsColours(bytes, task, pool)
    held.push(opened.photo.id)
    opened.notices.forEach(say)
    const { photo } = opened
    const { width, height } = photo
    report(task, { step: 'opened', width, height })
    const grid = gridAt(photo, task.scale)
    if (task.marks !== undefined) held.push(DEPTH)
    const marked = await readMarks(task, pool, photo, input.recipe)
    const recipe = input.recipe.on(photo, marked.marks)
    const pictures = picturesOfStack(recipe)
    held.push(...pictures.map(({ id }) => id))
    const missing = await openPictures(pictures, input.recipe, pool, say)
    const laid = layRecipe(recipe, photo, marked.marks)
    laid.unplaced.forEach((words) => say(`${words} It stays where the recipe has it.`))
    const groundwork = { ...noGroundwork, ...laid.groundwork }
    const source: PictureSource = { photo, amount: recipe.amount, groundwork, ...stackWithout(laid.stack, missing), ...marked }
    const rect = rectFor(task.region, grid, source)
    const exif = exifFor(exifOf(bytes), rect, task.place === 'keep', task.colours)
    const leftOut = exifProblem(task.format, exif)
    if (leftOut) say(leftOut)
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
    // A thread that has died holds nothing.
    for (const id of held) await pool.dropPhoto(id).catch(() => undefined)
  }
}

/** Id of the picture of distances. */
const DEPTH = 'depth'

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
  // Another file has another id: results of one are never taken for those of another.
  const id = inColourId(createHash('sha256').update(bytes).digest('hex'))
  const opened = await pool.openPhoto(id, bytes, basename(photo), reduce)
  if ('problem' in opened) throw new UserProblem(opened.tooLarge ? `${opened.problem} --reduce opens it smaller.` : opened.problem)
  if (!opened.wide) return opened
  await pool.dropPhoto(id)
  const again = await pool.openPhoto(wideId(id), bytes, basename(photo), reduce)
  if ('problem' in again) throw new UserProblem(again.problem)
  return again
}

/** Opens the pictures that a recipe reads, which lie beside it. Returns the ids of those that are not there, or are others; it is said which. */
async function openPictures(
  pictures: readonly PictureReference[],
  recipe: RecipeInput,
  pool: RenderPool,
  say: (notice: string) => void,
): Promise<string[]> {
  const missing: string[] = []
  for (const reference of pictures) {
    const { id, fileName } = reference
    const bytes = await recipe.picture(reference)
    const isIt = bytes && createHash('sha256').update(bytes).digest('hex') === fileIdOf(id)
    const opened = isIt ? await pool.openPhoto(id, bytes, fileName, true) : undefined
    if (opened && 'photo' in opened) continue
    missing.push(id)
    const why = opened?.problem ?? (bytes ? 'The file beside the recipe is another.' : 'It is not beside the recipe.')
    say(`The recipe reads the picture “${fileName}”; what reads it is left out. ${why}`)
  }
  return missing
}

/** Marks, groundwork and depth of the photo, if a file with them is given. */
async function readMarks(
  { marks: path, reading }: RenderTask,
  pool: RenderPool,
  photo: PictureSource['photo'],
  recipe: RecipeInput,
): Promise<Partial<PictureSource> & { readonly marks: SceneMarks }> {
  // Without marks it goes by what the photo shows, as a new scene does, if that changes anything.
  if (path === undefined)
    return { marks: { ...noMarks, reading: reading === 'yes' && recipe.usesReading(photo) ? await pool.readPhoto(photo.id) : notRead } }
  const file = parseMarks(await readTextInput(path), basename(path))
  const marks = marksFor(file, photo)
  const groundwork = groundworkFor(file, photo)
  if (!file.depth) return { marks, groundwork }
  const { file: name, ...depth } = file.depth
  const opened = await pool.openPhoto(DEPTH, await readInput(join(dirname(path), name)), name, true)
  if ('problem' in opened) throw new UserProblem(opened.problem)
  const { width, height } = opened.photo
  return { marks, groundwork, depth: { ...depth, picture: { id: DEPTH, fileName: name, width, height } } }
}
