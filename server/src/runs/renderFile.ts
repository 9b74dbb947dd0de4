import { laidFrames, TooLarge, type LaidFile } from '@welkinar/core/recipes'
import { basename, dirname, join } from 'node:path'
import {
  fileIdOf,
  framedGraph,
  frameOfSource,
  gridAt,
  groundworkFor,
  intersect,
  marksFor,
  parseMarks,
  regionOnGrid,
  UserProblem,
  workingSpaceOf,
  type Grid,
  type PictureReference,
  type PictureSource,
  type Rect,
  type SceneMarks,
} from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { createNodePool } from '../nodePool'
import { sha256 } from '../sha256'
import { readInput, readTextInput } from '../stores/inputFile'
import { OutputFile } from '../stores/outputFile'
import { readRecipe, type RecipeInput } from './recipeInput'
import type { RenderTask } from '../commands/renderOptions'

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

/** What a picture is computed by, wherever it is written to. */
export type PictureTask = Omit<RenderTask, 'recipe' | 'out' | 'overwrite'>

/** What a task reads. */
interface TaskInput {
  /** Whether another file is made after it at once. */
  readonly isNextComing?: boolean
  readonly recipe: RecipeInput
  readonly bytes: Uint8Array
}

/** The file of a task, in memory. The pool holds nothing of it afterwards. @param say hears what the person ought to know */
export async function renderPicture(task: PictureTask, input: TaskInput, pool: RenderPool, say: (notice: string) => void): Promise<Blob> {
  let made: Blob | undefined
  await renderFrames(task, { ...input, phases: [0] }, pool, say, (frame) => void (made = frame))
  return made!
}

/** What a task reads, and the moments of its loop that are wanted, 0 to 1. */
export interface FramesInput extends TaskInput {
  readonly phases: readonly number[]
}

/** The files of moments of a task, one after another. @param take is waited for before the next one is computed */
export async function renderFrames(
  task: PictureTask,
  { bytes, recipe, phases, isNextComing = false }: FramesInput,
  pool: RenderPool,
  say: (notice: string) => void,
  take: (frame: Blob, index: number) => Promise<void> | void,
): Promise<void> {
  const held: string[] = []
  if (task.marks !== undefined) held.push(DEPTH)
  const file: LaidFile = {
    bytes,
    fileName: basename(task.photo),
    id: sha256(bytes),
    reduce: task.reduce,
    recipe: recipe.source,
    options: { format: task.format, quality: task.quality, depth: task.bits, space: task.colours },
    keepsPlace: task.place === 'keep',
    reads: task.reading === 'yes',
    isNextComing,
    ...(task.marks === undefined ? {} : { known: (photo) => readMarks(task.marks ?? '', pool, photo) }),
    openPictures: (pictures) => {
      held.push(...pictures.map(({ id }) => id))
      return openPictures(pictures, recipe, pool, say)
    },
    output: (source) => {
      const grid = gridAt(source.photo, task.scale)
      return { node: framedGraph(source), grid, rect: rectFor(task.region, grid, source), working: workingSpaceOf(source.photo.id) }
    },
    onOpened: ({ width, height }) => report(task, { step: 'opened', width, height }),
    onProgress: (done) => report(task, { step: 'computed', part: Number(done.toFixed(4)) }),
    say,
  }
  try {
    await laidFrames(pool, file, phases, take)
  } catch (error) {
    throw error instanceof TooLarge ? new UserProblem(`${error.message} --reduce opens it smaller.`) : error
  } finally {
    // A thread that has died holds nothing.
    for (const id of held) await pool.dropPhoto(id, isNextComing).catch(() => undefined)
  }
}

/** Id of the picture of distances. */
const DEPTH = 'depth'

/** Says how far it is, if that is asked for. */
function report({ progress }: PictureTask, what: object): void {
  if (progress) console.log(JSON.stringify(what))
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
    const isIt = bytes && sha256(bytes) === fileIdOf(id)
    const opened = isIt ? await pool.openPhoto(id, bytes, fileName, true) : undefined
    if (opened && 'photo' in opened) continue
    missing.push(id)
    const why = opened?.problem ?? (bytes ? 'The file beside the recipe is another.' : 'It is not beside the recipe.')
    say(`The recipe reads the picture “${fileName}”; what reads it is left out. ${why}`)
  }
  return missing
}

/** Marks, groundwork and depth of the photo, of a file with them. */
async function readMarks(
  path: string,
  pool: RenderPool,
  photo: PictureSource['photo'],
): Promise<Partial<PictureSource> & { readonly marks: SceneMarks }> {
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
