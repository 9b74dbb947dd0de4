import { MovingPng } from '@welkinar/core/recipes'
import { mkdir } from 'node:fs/promises'
import { extname, join } from 'node:path'
import { CallProblem } from '../callProblem'
import { readInput } from '../stores/inputFile'
import { OutputFile } from '../stores/outputFile'
import { readRecipe } from '../runs/recipeInput'
import { poolFor, renderFrames } from '../runs/renderFile'
import type { RenderTask } from './renderOptions'

/** What `welkinar motion` is asked for: one PNG that moves, or a folder of frames. */
export interface MotionTask extends Omit<RenderTask, 'format'> {
  /** How long a round takes. */
  readonly seconds: number
  /** Frames a second. */
  readonly rate: number
}

/** More frames than this are not made. */
const MOST_FRAMES = 2000

/**
 * Writes what moves in a picture as it comes round: the last frame leads to the first. The first is the picture as it stands.
 * @throws CallProblem if it cannot be written where it was asked for; UserProblem if it cannot be made
 */
export async function renderMotion(task: MotionTask): Promise<void> {
  const count = Math.round(task.seconds * task.rate)
  if (count < 2 || count > MOST_FRAMES)
    throw new CallProblem(`--seconds and --rate make ${count} frames; 2 to ${MOST_FRAMES} are possible.`)
  const phases = Array.from({ length: count }, (_, i) => i / count)
  const ending = extname(task.out).toLowerCase()
  if (ending === '.png' || ending === '.apng') return oneFile(task, phases)
  if (ending !== '') throw new CallProblem(`--out ends in .png, or is a folder for the frames; “${task.out}” came.`)
  return folderOfFrames(task, phases)
}

const say = (notice: string): void => console.error(notice)

async function oneFile(task: MotionTask, phases: readonly number[]): Promise<void> {
  const { out, overwrite, photo, recipe, marks } = task
  const file = await OutputFile.begin(out, overwrite, { 'the photo': photo, 'the recipe': recipe, 'the file of marks': marks })
  try {
    const moving = new MovingPng(phases.length, task.rate)
    await eachFrame(task, phases, async (frame) => moving.add(new Uint8Array(await frame.arrayBuffer())))
    await file.finish(moving.finish())
  } catch (error) {
    await file.discard()
    throw error
  }
}

async function folderOfFrames(task: MotionTask, phases: readonly number[]): Promise<void> {
  await mkdir(task.out, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw new CallProblem(`“${task.out}” cannot be made: ${error.code === 'EEXIST' ? 'it is a file' : error.code}.`)
  })
  const digits = Math.max(4, String(phases.length).length)
  await eachFrame(task, phases, async (frame, index) => {
    const name = `${String(index + 1).padStart(digits, '0')}.png`
    const file = await OutputFile.begin(join(task.out, name), task.overwrite, { 'the photo': task.photo })
    await file.finish(frame)
  })
}

async function eachFrame(task: MotionTask, phases: readonly number[], take: (frame: Blob, index: number) => Promise<void>): Promise<void> {
  // What cannot be read is found before threads begin.
  const recipe = await readRecipe(task.recipe)
  const bytes = await readInput(task.photo)
  const pool = await poolFor(task)
  try {
    await renderFrames({ ...task, format: 'png' }, { recipe, bytes, phases }, pool, say, take)
  } finally {
    pool.dispose()
  }
}
