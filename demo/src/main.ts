import { readFile, writeFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { availableParallelism } from 'node:os'
import { parseArgs } from 'node:util'
import { Worker } from 'node:worker_threads'
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js'
import { encode as encodePng } from 'fast-png'
import { calm } from './calm'
import { develop } from './develop'
import type { PhotoDefinition } from './photo'
import { photos } from './photos/index'
import { depthCodes, truthOf, type Truth } from './truth'
import { VIEWS, viewOf } from './views'

// Takes the sample photos: traces them, develops them, and writes the JPEG and the depth picture.

const { values } = parseArgs({
  options: {
    width: { type: 'string', default: '3000' },
    samples: { type: 'string', default: '36' },
    only: { type: 'string' },
    views: { type: 'boolean', default: false },
    out: { type: 'string' },
  },
})
const width = Number(values.width)
const out = values.out ?? new URL(values.views ? '../views/' : '../photos/', import.meta.url).pathname
const JPEG_LIMIT = 1.5e6
const DEPTH_WIDTH = 1000
const DEPTH_NEAR = 2
const DEPTH_FAR = 2000
const VIEW_WIDTH = 600
const VIEW_SAMPLES = 4
const VIEW_QUALITY = 84
/** Px of a view for each of its distances, across and down. */
const DEPTH_STEP = 3
const DEPTH_SPAN = 1 / DEPTH_NEAR - 1 / DEPTH_FAR

interface Traced {
  readonly height: number
  readonly light: Float32Array
  readonly depth: Float32Array
}

async function expose(photo: PhotoDefinition, width: number, samples: number, view?: number): Promise<Traced> {
  const frame = Math.round((width * 2) / 3)
  const height = Math.round(frame * (1 - (photo.crop ?? 0)))
  const light = new Float32Array(width * height * 3)
  const depth = new Float32Array(width * height)
  const threads = availableParallelism()
  let done = 0
  const run = (first: number): Promise<void> =>
    new Promise((resolve, reject) => {
      const workerData = { photo: photo.name, view, width, height, frame, samples, first, step: threads }
      const worker = new Worker(new URL('./expose.js', import.meta.url), { workerData })
      worker.on('message', ({ y, row }: { y: number; row: Float32Array }) => {
        for (let x = 0; x < width; x++) {
          light.set(row.subarray(x * 4, x * 4 + 3), (y * width + x) * 3)
          depth[y * width + x] = row[x * 4 + 3] ?? 0
        }
        if (++done % 200 === 0) console.log(`${photo.name}: ${Math.round((100 * done) / height)} %`)
      })
      worker.on('error', reject)
      worker.on('exit', () => resolve())
    })
  await Promise.all(Array.from({ length: threads }, (_, first) => run(first)))
  return { light, depth, height }
}

/** The best quality, from `most` down, that stays below 1.5 MB. */
async function writeJpeg(path: string, pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number, most = 92): Promise<void> {
  const module = createRequire(import.meta.url).resolve('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')
  await (init as unknown as (module: WebAssembly.Module) => Promise<void>)(await WebAssembly.compile(await readFile(module)))
  for (let quality = most; quality > 50; quality -= 3) {
    const picture = { data: pixels, width, height, colorSpace: 'srgb' } as ImageData
    const bytes = await encodeJpeg(picture, { quality })
    if (bytes.byteLength < JPEG_LIMIT || quality <= 53) return writeFile(path, new Uint8Array(bytes))
  }
}

/** Depth as 16-bit grey in even steps of 1 / distance: white at 2 m and nearer, black at 2000 m and farther. */
async function writeDepth(path: string, depth: Float32Array, height: number): Promise<void> {
  const w = Math.min(width, DEPTH_WIDTH)
  const h = Math.round((w * height) / width)
  const data = new Uint16Array(w * h)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const from = Math.floor(((y + 0.5) * height) / h) * width + Math.floor(((x + 0.5) * width) / w)
      data[y * w + x] = Math.round(65535 * Math.min(1, Math.max(0, (1 / (depth[from] ?? DEPTH_FAR) - 1 / DEPTH_FAR) / DEPTH_SPAN)))
    }
  }
  await writeFile(path, encodePng({ width: w, height: h, data, depth: 16, channels: 1 }))
}

async function takePhoto(photo: PhotoDefinition): Promise<void> {
  const { light, depth, height } = await expose(photo, width, Number(values.samples))
  const exposure = { width, height, light }
  const pixels = develop(photo.develop.calm ? calm(exposure) : exposure, photo.develop)
  await writeJpeg(`${out}${photo.name}.jpg`, pixels, width, height)
  await writeDepth(`${out}${photo.name}-depth.png`, depth, height)
  console.log(`${photo.name} written`)
}

/** The small views of a scene: pictures, their distances, and what is known of them. */
async function takeViews(photo: PhotoDefinition): Promise<Record<string, Truth>> {
  const known: Record<string, Truth> = {}
  for (let index = 0; index < VIEWS; index++) {
    const view = viewOf(photo, index)
    const { light, depth, height } = await expose({ ...view, name: photo.name }, VIEW_WIDTH, VIEW_SAMPLES, index)
    const pixels = develop(calm({ width: VIEW_WIDTH, height, light }), view.develop)
    const file = `${out}${view.name}`
    await writeJpeg(`${file}.jpg`, pixels, VIEW_WIDTH, height, VIEW_QUALITY)
    const codes = { width: Math.floor(VIEW_WIDTH / DEPTH_STEP), height: Math.floor(height / DEPTH_STEP) }
    const data = depthCodes(depth, VIEW_WIDTH, height, DEPTH_STEP)
    await writeFile(`${file}-depth.png`, encodePng({ ...codes, data, depth: 8, channels: 1 }))
    known[view.name] = truthOf(view, depth, VIEW_WIDTH, height)
    console.log(`${view.name} written`)
  }
  return known
}

const chosen = photos.filter(({ name }) => !values.only || name === values.only)
if (values.views) {
  const path = `${out}views.json`
  const known = values.only ? (JSON.parse(await readFile(path, 'utf8')) as Record<string, Truth>) : {}
  for (const photo of chosen) Object.assign(known, await takeViews(photo))
  await writeFile(path, `${JSON.stringify(known, null, 1)}\n`)
} else for (const photo of chosen) await takePhoto(photo)
