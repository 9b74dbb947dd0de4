import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { newEffect, type Effect } from '@welkinar/core'
import sharp from 'sharp'
import { marksFile } from './marksFile'
import { alternate, ratioRow, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { recipeText } from './recipeText'
import { renderCommand, runNode } from './runNode'
import { finishOf } from './stackRows'

const THREADS = 2
const size = { width: WIDTH, height: HEIGHT }

/** Writes the test picture as a JPEG file and gives its path. */
export async function writePhoto(folder: string, pixels: Uint8ClampedArray): Promise<string> {
  const path = join(folder, 'photo.jpg')
  await sharp(pixels, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toFile(path)
  return path
}

interface Job {
  readonly name: string
  readonly effects: Effect[]
  /** Script that takes the steps of the trade with sharp. */
  readonly steps: URL
  /** Most times as long as those steps that it may take. */
  readonly most: number
  readonly remark: string
}

function jobs(): Job[] {
  const rain = newEffect(size, { kind: 'rain', look: 'steady-rain', id: 'one' })
  const veil = newEffect(size, { kind: 'softFocus', look: 'veil', id: 'one' })
  Object.assign(veil.controls.shape, { detail: 0 })
  return [
    {
      name: 'Rain',
      effects: [rain],
      steps: new URL('./sharpRain.js', import.meta.url),
      most: 0.5,
      remark: 'three depth layers, luminosity mask and levels, against noise, blur, smear and two layers; both with 2 threads',
    },
    {
      name: 'Soft focus',
      effects: [veil],
      steps: new URL('./sharpSoftFocus.js', import.meta.url),
      most: 1,
      remark: 'a veil of 25 px on both sides; sharp with its own 8-bit blur, which cuts the kernel short; both with 2 threads',
    },
    {
      name: 'Whole finish',
      effects: finishOf(size),
      steps: new URL('./sharpFinish.js', import.meta.url),
      most: 1.5,
      remark:
        'adjust, colour balance, curves, vignette, grain, colour table, against the nearest steps of sharp at 8 bits; both with 2 threads',
    },
  ]
}

/** Whole jobs from file to file, as processes. */
export async function jobRows(folder: string, photo: string): Promise<Row[]> {
  const rows: Row[] = []
  for (const { name, effects, steps, most, remark } of jobs()) {
    const recipe = join(folder, 'recipe.json')
    await writeFile(recipe, recipeText(name, size, effects))
    const script = fileURLToPath(steps)
    const out = join(folder, 'out.jpg')
    const marks = await marksFile(folder, photo, size)
    const paths = ['--photo', photo, '--recipe', recipe, '--marks', marks, '--out', out]
    const ours = () => mustRun([...renderCommand, ...paths, '--threads', String(THREADS)])
    const other = () => mustRun([script, photo, out, String(THREADS)])
    rows.push(ratioRow(`${name}, whole job, JPEG 24 MP in and out`, await alternate(ours, other), 'the steps with sharp', most, remark))
  }
  return rows
}

async function mustRun(args: readonly string[]): Promise<void> {
  const { failure } = await runNode(args)
  if (failure !== undefined) throw new Error(failure)
}
