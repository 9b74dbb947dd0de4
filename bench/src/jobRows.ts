import { spawnSync } from 'node:child_process'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { newEffect } from '@welkinar/core'
import sharp from 'sharp'
import { alternate, ratioRow, type Row } from './measure'
import { HEIGHT, WIDTH } from './photo24'
import { recipeText } from './recipeText'

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

/** The whole rain job from file to file, as processes. */
export async function jobRows(folder: string, photo: string): Promise<Row[]> {
  const recipe = join(folder, 'recipe.json')
  const effects = [newEffect(size, { kind: 'rain', look: 'Steady rain', id: 'rain' })]
  await writeFile(recipe, recipeText('Rain', size, effects))
  const render = fileURLToPath(new URL('../../server/dist/render.js', import.meta.url))
  const steps = fileURLToPath(new URL('./sharpRain.js', import.meta.url))
  const out = join(folder, 'out.jpg')
  const ours = () => runNode([render, '--photo', photo, '--recipe', recipe, '--out', out, '--threads', String(THREADS)])
  const other = () => runNode([steps, photo, out, String(THREADS)])
  const times = await alternate(ours, other)
  const remark = 'three depth layers, luminosity mask and levels, against noise, blur, smear and two layers; both with 2 threads'
  return [ratioRow('Rain, whole job, JPEG 24 MP in and out', times, 'the steps with sharp', 1, remark)]
}

function runNode(args: string[]): void {
  const { status, stderr } = spawnSync('node', args, { encoding: 'utf8' })
  if (status !== 0) throw new Error(stderr)
}
