// A veil with sharp on each photo of a folder, one after another in one process. Arguments: folder, output folder, threads.
import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import { sharpVeil } from './sharpVeil'

const [folder = '', out = '', threads = '2'] = process.argv.slice(2)
sharp.concurrency(Number(threads))
for (const name of (await readdir(folder)).filter((one) => one.endsWith('.jpg'))) await sharpVeil(join(folder, name), join(out, name))
