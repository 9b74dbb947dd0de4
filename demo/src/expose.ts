import { parentPort, workerData } from 'node:worker_threads'
import { sightOf } from './camera'
import { photoNamed } from './photos/index'
import { trace, type Random } from './tracer/trace'
import { add, normalise, scale, subtract, type Vector } from './tracer/vector'
import { viewOf } from './views'

// One thread: traces every n-th row of a photo and posts it.

interface Job {
  readonly photo: string
  /** Number of the view of its scene; the photo itself without it. */
  readonly view?: number
  readonly width: number
  readonly height: number
  /** Height before the bottom is cut off. */
  readonly frame: number
  readonly samples: number
  readonly first: number
  readonly step: number
}

const job = workerData as Job
const { scene, camera } = job.view === undefined ? photoNamed(job.photo) : viewOf(photoNamed(job.photo), job.view)
const { forward, right, up, half } = sightOf(camera)

function generator(seed: number): Random {
  let state = seed | 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

function exposePixel(x: number, y: number, random: Random): { light: Vector; depth: number } {
  let sum: Vector = [0, 0, 0]
  let depth = 0
  const grid = Math.ceil(Math.sqrt(job.samples))
  for (let i = 0; i < job.samples; i++) {
    // Stratified over the pixel, with a tent filter as soft as a good lens.
    const sx = ((i % grid) + random()) / grid + 0.35 * (random() - random())
    const sy = (Math.floor(i / grid) + random()) / grid + 0.35 * (random() - random())
    const u = ((x + sx) / job.width - 0.5) * 2 * half
    const v = (0.5 - (y + sy) / job.frame) * 2 * half * (job.frame / job.width)
    const towards = add(add(forward, scale(right, u)), scale(up, v))
    const angle = 2 * Math.PI * random()
    const radius = camera.aperture * Math.sqrt(random())
    const offset = add(scale(right, radius * Math.cos(angle)), scale(up, radius * Math.sin(angle)))
    const direction = normalise(subtract(scale(towards, camera.focus), offset))
    const { light, distance } = trace(scene, add(camera.place, offset), direction, random)
    sum = add(sum, light)
    depth += Math.min(distance, 5000) / job.samples
  }
  return { light: scale(sum, 1 / job.samples), depth }
}

for (let y = job.first; y < job.height; y += job.step) {
  const row = new Float32Array(job.width * 4)
  const random = generator(y * 7919 + 17)
  for (let x = 0; x < job.width; x++) {
    const { light, depth } = exposePixel(x, y, random)
    row.set(light, x * 4)
    row[x * 4 + 3] = depth
  }
  parentPort?.postMessage({ y, row }, [row.buffer])
}
