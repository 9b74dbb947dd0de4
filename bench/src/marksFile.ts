import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { documentVersion, noGroundwork, noMarks, type Groundwork, type Reading, type Size } from '@welkinar/core'
import sharp from 'sharp'
import { readPhoto } from '../../core/src/reading/readPhoto'
import { benchPhoto } from './photo24'

const known = new Map<string, Promise<Reading>>()

async function readingOf(photo: string): Promise<Reading> {
  const { data, info } = await sharp(photo).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const opened = await benchPhoto(new Uint8ClampedArray(data), info)
  return readPhoto(opened.kernels, opened.photo)
}

/** A file of marks with what is read from a photo, as a scene keeps it: a photo is read once, not for each picture. @returns its path */
export async function marksFile(folder: string, photo: string, size: Size, groundwork: Partial<Groundwork> = {}): Promise<string> {
  const reading = known.get(photo) ?? readingOf(photo)
  known.set(photo, reading)
  const path = join(folder, 'marks.json')
  const parts = { marks: { ...noMarks, reading: await reading }, groundwork: { ...noGroundwork, ...groundwork }, depth: null }
  await writeFile(path, JSON.stringify({ format: 'welkinar-marks', ...documentVersion, madeFor: size, ...parts }))
  return path
}
