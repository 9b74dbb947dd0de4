import { exifFor } from '../codecs/exif/exifFor'
import { exifProblem } from '../codecs/formats/limits'
import type { ExportOptions } from '../codecs/formats/registry'
import { exifOf } from '../codecs/header/readHeader'
import { nameOfEffect } from '../effects/effectName'
import type { PictureReference } from '../masks/picture/definition'
import { noGroundwork } from '../model/groundwork'
import { noMarks, type SceneMarks } from '../model/marks'
import { notRead, type Reading } from '../model/reading'
import { layRecipe, picturesOfStack, stackWithout } from '../model/recipe'
import { UserProblem } from '../model/userProblem'
import { inColourId, wideId } from '../photo/pictureIds'
import type { RecipeSource } from '../recipes/recipeSource'
import { effectOfNode } from '../render/effectOfNode'
import type { PictureOutput } from '../render/pictureOutput'
import type { PictureSource } from '../render/pictureSource'
import { RenderProblem } from './renderProblem'
import { priorities, type RenderPool } from './renderPool'
import type { Opened, Reduce } from './renderWorker'

/** A photo, a recipe, and the file that is made of them. */
export interface LaidFile {
  readonly bytes: Uint8Array
  /** Of the photo, for messages. */
  readonly fileName: string
  /** Names the photo in the threads: another file has another. */
  readonly id: string
  readonly reduce: Reduce
  readonly recipe: RecipeSource
  readonly options: ExportOptions
  /** Whether the file may say where the photo was taken. */
  readonly keepsPlace: boolean
  /** Whether the photo is read, if the recipe asks for that. */
  readonly reads: boolean
  /** What was read in photos before, by their names in the threads; what is read is put there. */
  readonly readings?: Map<string, Reading>
  /** Whether another file is made after it at once: the threads stay as they are for it. */
  readonly isNextComing?: boolean
  readonly signal?: AbortSignal
  /** What is known of the photo besides, in the place of a reading. */
  known?(photo: PictureSource['photo']): Promise<Partial<PictureSource> & { readonly marks: SceneMarks }>
  /** Puts the pictures that the recipe reads into the threads. Returns the ids of those that are not there. */
  openPictures(pictures: readonly PictureReference[]): Promise<readonly string[]>
  /** What is computed for the file. */
  output(source: PictureSource): PictureOutput
  onOpened?(photo: PictureSource['photo']): void
  onProgress?(done: number): void
  /** Hears what the person ought to know. */
  say(notice: string): void
}

const TILE = 512

/**
 * The file of a photo with a recipe laid on it, in memory: by every surface the same pixels. The threads hold nothing of the photo afterwards.
 * @throws UserProblem if it cannot be made; the reason of the signal if that is aborted
 */
export async function laidFile(pool: RenderPool, file: LaidFile): Promise<Blob> {
  let made: Blob | undefined
  await laidFrames(pool, file, [0], (frame) => void (made = frame))
  return made!
}

/**
 * The files of the moments of a loop, one after another; of what does not move all are alike.
 * @param phases where in the loop each is, 0 to 1; 0 is the picture as it stands
 * @param take is waited for before the next one is computed
 * @throws as `laidFile`
 */
export async function laidFrames(
  pool: RenderPool,
  file: LaidFile,
  phases: readonly number[],
  take: (frame: Blob, index: number) => Promise<void> | void,
): Promise<void> {
  const { bytes, say, options, recipe: given, signal, onProgress } = file
  let held: string | undefined
  try {
    const { photo, notices } = await openInItsColours(pool, file)
    held = photo.id
    notices.forEach(say)
    file.onOpened?.(photo)
    const known = (await file.known?.(photo)) ?? { marks: await readMarks(pool, photo, file) }
    signal?.throwIfAborted()
    const recipe = given.on(photo, known.marks)
    const missing = await file.openPictures(picturesOfStack(recipe))
    const laid = layRecipe(recipe, photo, known.marks)
    laid.unplaced.forEach((words) => say(`${words} It stays where the recipe has it.`))
    const groundwork = { ...noGroundwork, ...laid.groundwork }
    const still: PictureSource = { photo, amount: recipe.amount, groundwork, ...stackWithout(laid.stack, missing), ...known }
    const exif = exifFor(exifOf(bytes), file.output(still).rect, file.keepsPlace, options.space)
    const leftOut = exifProblem(options.format, exif)
    if (leftOut) say(leftOut)
    for (const [index, phase] of phases.entries()) {
      const source = phase === 0 ? still : { ...still, phase }
      const request = {
        ...file.output(source),
        tileSize: TILE,
        priority: priorities.export,
        options,
        exif,
        ...(signal && { signal }),
        ...(onProgress && { onProgress: (part: number) => onProgress((index + part) / phases.length) }),
      }
      const frame = await pool.renderFile(request).catch((error: unknown) => {
        if (!(error instanceof RenderProblem)) throw error
        const effect = error.nodeKey === undefined ? undefined : effectOfNode(source, error.nodeKey)
        throw new UserProblem(error.inWords(effect ? `“${nameOfEffect(effect)}”` : 'The picture'))
      })
      await take(frame, index)
    }
  } finally {
    // A thread that has died holds nothing.
    if (held !== undefined) await pool.dropPhoto(held, file.isNextComing).catch(() => undefined)
  }
}

/** A photo goes by what it shows, as a new scene does, if that changes anything. */
async function readMarks(pool: RenderPool, photo: PictureSource['photo'], file: LaidFile): Promise<SceneMarks> {
  const { reads, recipe, readings, signal } = file
  if (!reads || !recipe.usesReading(photo)) return { ...noMarks, reading: notRead }
  const reading = readings?.get(photo.id) ?? (await pool.readPhoto(photo.id, signal))
  readings?.set(photo.id, reading)
  return { ...noMarks, reading }
}

/** The photo is over the size limit; it can be opened reduced. */
export class TooLarge extends UserProblem {}

/** Opens a photo in sRGB, or once more in the wider space if sRGB does not have its colours. */
async function openInItsColours(pool: RenderPool, { bytes, fileName, id, reduce }: LaidFile): Promise<Extract<Opened, { wide: boolean }>> {
  const narrow = inColourId(id)
  const opened = await pool.openPhoto(narrow, bytes, fileName, reduce)
  if ('problem' in opened) throw opened.tooLarge ? new TooLarge(opened.problem) : new UserProblem(opened.problem)
  if (!opened.wide) return opened
  await pool.dropPhoto(narrow, true)
  const again = await pool.openPhoto(wideId(narrow), bytes, fileName, reduce)
  if ('problem' in again) throw new UserProblem(again.problem)
  return again
}
