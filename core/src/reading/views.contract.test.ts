import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { photoFrom } from '../../test-support/pictures'
import type { Reading } from '../model/reading'
import { readPhoto } from './readPhoto'

// 48 small views of the sample scenes, by other cameras and in other light, of which the tracer knows everything. The methods were tuned on the quay, the
// headland and the hut; what is asserted here are the other three. But only the other three hold calm water, so the mirrored skyline was tried on them (and on photographs that are not
// here). The tracer is the source of what is true.

const folder = fileURLToPath(new URL('../../../demo/views/', import.meta.url))
const TUNED = /^(ferry-quay|headland|survey-hut)/

/** Shows how every view was read. */
const SHOW = Boolean(process.env['WELKINAR_SHOW_VIEWS'])

interface Truth {
  readonly horizon: { readonly y: number; readonly turn: number; readonly seen: number } | null
  readonly lights: readonly { readonly x: number; readonly y: number }[]
}

/** How a view was read: errors as parts of the height and the width, overlap of the sky, agreement of the order of distances. */
interface Result {
  readonly name: string
  /** Part of the width on which the horizon is seen. */
  readonly seen: number
  readonly horizonOff: number | undefined
  readonly skyOverlap: number | undefined
  readonly order: number
  readonly lightOff: number | undefined
}

const size = { width: 600, height: 400 }
const results: Result[] = []

beforeAll(async () => {
  const kernels = await loadKernels()
  const truths = JSON.parse(readFileSync(`${folder}views.json`, 'utf8')) as Record<string, Truth>
  for (const [name, truth] of Object.entries(truths).filter(([view]) => SHOW || !TUNED.test(view))) {
    const pixels = await sharp(`${folder}${name}.jpg`).ensureAlpha().raw().toBuffer()
    results.push(await compared(name, truth, readPhoto(kernels, photoFrom(kernels, name, size.width, size.height, pixels))))
  }
  if (SHOW) console.table(results)
}, 120_000)

async function compared(name: string, truth: Truth, { horizon, sky, light, distance }: Reading): Promise<Result> {
  const { width, height, codes } = distance!
  const known = await sharp(`${folder}${name}-depth.png`).resize(width, height, { fit: 'fill' }).greyscale().raw().toBuffer()
  const isSky = sky ? [...Buffer.from(sky.codes, 'base64')].map((code) => code > 127) : [...known].map(() => false)
  const [both, either] = [isSky.filter((is, i) => is && known[i]! > 250).length, isSky.filter((is, i) => is || known[i]! > 250).length]
  // How far the sky is varies by the way through the air; the tracer knows it as farthest.
  const farthest = [...Buffer.from(codes, 'base64')].map((code, i) => (isSky[i] ? 255 : code))
  const lightOffs = truth.lights.map(({ x, y }) => light && Math.hypot(light.x / size.width - x, ((light.y / size.height - y) * 2) / 3))
  return {
    name,
    seen: truth.horizon?.seen ?? 0,
    horizonOff: horizon && truth.horizon ? Math.abs(horizon.y / size.height - truth.horizon.y) : horizon ? Infinity : undefined,
    skyOverlap: either > 0.02 * known.length ? both / either : undefined,
    order: rankCorrelation(farthest, [...known]),
    lightOff: light && lightOffs.length > 0 ? Math.min(...lightOffs.map((off) => off ?? Infinity)) : undefined,
  }
}

/** Spearman's rank correlation (1904), ties at their mean rank. */
function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const [p, q] = [ranks(a), ranks(b)]
  const mean = (a.length - 1) / 2
  let [pq, pp, qq] = [0, 0, 0]
  for (let i = 0; i < p.length; i++) {
    const [x, y] = [p[i]! - mean, q[i]! - mean]
    pq += x * y
    pp += x * x
    qq += y * y
  }
  return pq / Math.sqrt(pp * qq || 1)
}

function ranks(values: readonly number[]): Float64Array {
  const counts = new Array<number>(256).fill(0)
  for (const value of values) counts[value]!++
  let before = 0
  const rank = counts.map((count) => {
    const middle = before + (count - 1) / 2
    before += count
    return middle
  })
  return Float64Array.from(values, (value) => rank[value]!)
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN
const part = (values: readonly boolean[]): number => values.filter(Boolean).length / values.length
const unseen = (): Result[] => results.filter(({ name }) => !TUNED.test(name))

/** A horizon is seen, or there is none to be seen. */
const SEEN_FROM = 0.15
const NONE_BELOW = 0.03
/** So near to where it is, as a part of the height. */
const NEAR = 0.02

// Each scene stands in docs/readings.md.
describe('reading the small views of three scenes', () => {
  it('is near the horizon where one is seen', () => {
    const visible = unseen().filter(({ seen }) => seen >= SEEN_FROM)
    expect(visible.length).toBeGreaterThan(3)
    expect(part(visible.map(({ horizonOff = Infinity }) => horizonOff < NEAR))).toBeGreaterThanOrEqual(0.9)
  })

  // What water mirrors tells where the horizon is that hills hide: that is not wrong.
  it('claims none elsewhere', () => {
    const without = unseen().filter(({ seen }) => seen < NONE_BELOW)
    expect(without.length).toBeGreaterThan(11)
    expect(part(without.map(({ horizonOff = 0 }) => horizonOff < NEAR))).toBeGreaterThanOrEqual(0.9)
  })

  it('finds the sky', () => {
    expect(median(unseen().flatMap(({ skyOverlap }) => skyOverlap ?? []))).toBeGreaterThan(0.9)
  })

  it('puts distances in their order', () => {
    expect(median(unseen().map(({ order }) => order))).toBeGreaterThan(0.9)
  })
})
