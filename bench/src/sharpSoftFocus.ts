// A veil with sharp. Arguments: photo, output, threads.
import sharp from 'sharp'
import { sharpVeil } from './sharpVeil'

const [photo = '', out = '', threads = '2'] = process.argv.slice(2)
sharp.concurrency(Number(threads))
await sharpVeil(photo, out)
