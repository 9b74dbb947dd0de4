import { outputOf, UserProblem, type Reading } from '@welkinar/core'
import { laidFile, TooLarge } from '@welkinar/core/recipes'
import type { RenderPool } from '@welkinar/core/pool'
import { create } from 'zustand'
import { showNotice, showProblem } from '../common/notices'
import { renderPool } from '../engine/engine'
import { leasePhoto, type PhotoLease } from '../engine/photos'
import { isOutOfRoom, type RunJob, type StoredRun } from '../storage/database'
import { photoId } from '../storage/photos'
import { nextJob, noteJob, photoOfRun, recipeOfRun, runOf } from '../storage/runs'
import { whileAlone } from '../storage/sceneLock'
import { FolderGone, writeInFolder } from './folder'

/** What the run of this tab does. What it has done stands in the database. */
interface Runner {
  /** Index of the file that is made now. */
  readonly making: number | undefined
  /** How much of it is computed, 0 to 1. */
  readonly part: number
  /** Files that were made since it went on, and how long that took, ms. */
  readonly made: number
  readonly took: number
}

const resting: Runner = { making: undefined, part: 0, made: 0, took: 0 }

export const useRunner = create<Runner>()(() => resting)

let running: AbortController | undefined
/** A file that was begun so often and never ended has taken the page with it each time. */
const MOST_BEGINNINGS = 3

/** Stops after what is made now was given up; the run goes on from there. */
export function pause(): void {
  running?.abort()
}

/** Makes the files of a run that are still to be made, one after another, in this tab alone. */
export function goOn(runId: number): void {
  if (running) return
  const abort = new AbortController()
  running = abort
  whileAlone('run', () => makeAll(runId, abort.signal))
    .then((isAlone) => {
      if (!isAlone) showNotice('Another tab makes the files of this run.')
    })
    .catch((error: unknown) => {
      if (!abort.signal.aborted) showProblem(error, 'The run')
    })
    .finally(() => {
      running = undefined
      useRunner.setState(resting)
    })
}

async function makeAll(runId: number, signal: AbortSignal): Promise<void> {
  const pool = await renderPool()
  const run = await runOf(runId)
  if (!run) return
  let readings: OfPhoto = { photo: -1, readings: new Map() }
  const began = performance.now()
  for (let job = await nextJob(runId); job && !signal.aborted; job = await nextJob(runId)) {
    useRunner.setState({ making: job.index, part: 0 })
    // The files of a photo come one after another: it is read once.
    if (job.photo !== readings.photo) readings = { photo: job.photo, readings: new Map() }
    await makeOne(run, job, { pool, signal, ...readings })
    useRunner.setState(({ made }) => ({ made: made + 1, took: performance.now() - began }))
  }
  // What the threads have held for the next one is given back.
  await pool.dropPhoto(`${run.made}-run`)
}

interface OfPhoto {
  readonly photo: number
  readonly readings: Map<string, Reading>
}

/** What a file is made with. */
interface Making extends Omit<OfPhoto, 'photo'> {
  readonly pool: RenderPool
  readonly signal: AbortSignal
}

async function makeOne(run: StoredRun, job: RunJob, making: Making): Promise<void> {
  const { signal } = making
  const words: string[] = []
  const failed = (why: string): Promise<void> => noteJob(job, { state: 'failed', words: [...words, why] })
  if (job.begun >= MOST_BEGINNINGS) return failed(`It was begun ${MOST_BEGINNINGS} times and never ended; it is left out.`)
  await noteJob(job, { begun: job.begun + 1 })
  try {
    const file = await laid(run, job, words, making)
    if (run.folder) await writeTo(run.folder, job, file)
    await noteJob(job, { state: 'done', words, ...(run.folder ? {} : { file }) })
  } catch (error) {
    if (signal.aborted) return noteJob(job, { begun: job.begun })
    if (isOutOfRoom(error)) {
      await noteJob(job, { begun: job.begun })
      throw new UserProblem('There is no room left in this browser’s storage. Save what was made, or have the files written to a folder.')
    }
    if (error instanceof FolderGone) {
      await noteJob(job, { begun: job.begun })
      throw error
    }
    await failed(
      error instanceof UserProblem ? error.message : `Something went wrong: ${error instanceof Error ? error.message : String(error)}`,
    )
  }
}

/** The file of a job. */
async function laid(run: StoredRun, job: RunJob, words: string[], { pool, signal, readings }: Making): Promise<Blob> {
  const [photo, output] = [await photoOfRun(job.runId, job.photo), run.outputs[job.output]]
  if (!photo || !output) throw new UserProblem('This photo is not in the run any more.')
  if (photo.file.size === 0) throw new UserProblem('It is empty.')
  const { format, quality, bits: depth, space } = output
  const leases: PhotoLease[] = []
  try {
    return await laidFile(pool, {
      bytes: new Uint8Array(await photo.file.arrayBuffer()),
      fileName: photo.fileName,
      // No screen holds it by this name.
      id: `${await photoId(photo.file)}-run`,
      reduce: false,
      recipe: recipeOfRun(run, job.recipe).source,
      options: { format, quality, depth, space },
      keepsPlace: true,
      reads: true,
      isNextComing: true,
      readings,
      signal,
      output: (source) => outputOf(source, { longSide: output.longSide ?? undefined, sharpened: output.sharpened }),
      openPictures: async (pictures) => {
        const gone: string[] = []
        for (const picture of pictures) {
          const lease = leasePhoto(picture)
          leases.push(lease)
          await lease.opened.catch(() => {
            gone.push(picture.id)
            words.push(`What reads the picture “${picture.fileName}” is left out: it is not in this browser.`)
          })
        }
        return gone
      },
      onProgress: (part) => useRunner.setState({ part }),
      say: (notice) => words.push(notice),
    })
  } catch (error) {
    throw error instanceof TooLarge ? new UserProblem(`${error.message} Open it as a scene to reduce it.`) : error
  } finally {
    leases.forEach((lease) => lease.release())
  }
}

/** Writes a file to a folder; one that was written for this job before, whole or begun, is written over. */
async function writeTo(folder: FileSystemDirectoryHandle, job: RunJob, file: Blob): Promise<void> {
  const { written } = job
  await noteJob(job, { written: await photoId(file) })
  await writeInFolder(
    folder,
    job.name,
    file,
    async (there) => written !== undefined && (there.size === 0 || (await photoId(there)) === written),
  )
}
