// A veil by the trade's steps with sharp on each photo of a folder, one after another in one process: see sharpSoftFocus. Arguments: folder, output folder, threads.
import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'

const [folder = '', out = '', threads = '2'] = process.argv.slice(2)
sharp.concurrency(Number(threads))

const CONTRAST = 1.7
for (const name of (await readdir(folder)).filter((one) => one.endsWith('.jpg'))) {
  const photo = join(folder, name)
  const copy = await sharp(photo)
    .blur(25)
    .linear(CONTRAST, 255 * (0.5 - 0.5 * CONTRAST + 0.04))
    .ensureAlpha(0.15)
    .raw()
    .toBuffer({ resolveWithObject: true })
  const { width, height, channels } = copy.info
  await sharp(photo)
    .composite([{ input: copy.data, raw: { width, height, channels }, blend: 'over' }])
    .removeAlpha()
    .jpeg({ quality: 92 })
    .toFile(join(out, name))
}
