import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import {
  effectDefinitions,
  largestCrop,
  newEffect,
  newMask,
  noMarks,
  startingTone,
  type Effect,
  type EffectKind,
  type Groundwork,
  type MaskKind,
  type Size,
} from '@welkinar/core'
import sharp from 'sharp'
import { marksFile } from './marksFile'
import { ratioRow, type Row } from './measure'
import { HEIGHT, testPixels, WIDTH } from './photo24'
import { recipeText } from './recipeText'
import { renderCommand, runNode, type ProcessRun } from './runNode'

const THREADS = 2
const ABOVE_BARE_MS = 2500
const ABOVE_BARE_FINISH_MS = 1500
const ABOVE_BARE_BYTES = 300e6
const BARE_BYTES = 700e6

/** A mixed stack as artists build it, far to near: kind, starting look, and masks of where it is. */
const mixed: readonly (readonly [EffectKind, string, ...MaskKind[]])[] = [
  ['haze', 'blue-distance'],
  ['fog', 'morning-fog', 'luminosity'],
  ['rain', 'steady-rain'],
  ['softFocus', 'veil'],
  ['lightBloom', 'night-lights'],
  ['rays', 'streaming-sun', 'ellipse'],
  ['lowSun', 'behind-the-ridge'],
  ['subjectGlow', 'rim-of-light', 'brush'],
  ['sparkles', 'sea-glitter', 'luminosity', 'line'],
  ['softFocus', 'dream-bloom', 'luminosity'],
]

/** The first `count` of the mixed effects, over and over. */
export function mixedStack(size: Size, count: number): Effect[] {
  return Array.from({ length: count }, (_, i) => {
    const [kind, look, ...masks] = mixed[i % mixed.length]!
    const made = newEffect(size, { kind, look, id: `${kind} ${i}` })
    const list = masks.map((mask, k) => newMask(size, { kind: mask, id: `m${k}`, join: k ? 'keep' : 'add', marks: noMarks }))
    return list.length ? { ...made, where: { masks: list, hold: 100 } } : made
  })
}

/** Effects on a photo, JPEG in and out, as a process. @param groundwork what is done to the photo before */
export async function job(
  folder: string,
  photo: string,
  size: Size,
  effects: Effect[],
  groundwork?: Partial<Groundwork>,
  threads = THREADS,
): Promise<ProcessRun> {
  const recipe = join(folder, 'stack.json')
  await writeFile(recipe, recipeText('Stack', size, effects))
  const marks = await marksFile(folder, photo, size, groundwork)
  const paths = ['--photo', photo, '--recipe', recipe, '--marks', marks, '--out', join(folder, 'stack.jpg')]
  return runNode([...renderCommand, ...paths, '--threads', `${threads}`])
}

const size24 = { width: WIDTH, height: HEIGHT }

/** So often what is over its limit is measured again. */
const AGAIN = 2

/**
 * What is measured in turn with the bare photo, since a machine is not as fast all the time. One that stands still for a moment makes a run longer and none shorter: what is over its
 * limit is measured again, with the bare photo just before it, and the run that took the least more than it counts.
 */
async function besideBare(bare: () => Promise<ProcessRun>, runs: readonly Measured[]): Promise<Row[]> {
  const before = await bare()
  const rows: Row[] = []
  for (const { work, run, above } of runs) {
    let [beside, found] = [before, await run()]
    for (let again = 0; again < AGAIN && found.ms - beside.ms > above; again++) {
      const [bareAgain, foundAgain] = [await bare(), await run()]
      if (foundAgain.ms - bareAgain.ms < found.ms - beside.ms) [beside, found] = [bareAgain, foundAgain]
    }
    const words = `bare + ${above / 1e3} s, + 0.3 GB`
    const row = rowOf(work, found, { ms: beside.ms + above, memory: beside.memory + ABOVE_BARE_BYTES, words })
    rows.push({ ...row, other: { name: 'the bare photo just before', ms: beside.ms } })
  }
  return rows
}

interface Measured {
  readonly work: string
  /** What it may take more than the bare photo, ms. */
  readonly above: number
  run(): Promise<ProcessRun>
}

/** Every starting look alone, 24 MP, JPEG in and out, as a process; time and memory above those of the bare photo. */
export async function fullSizeRows(folder: string, photo: string): Promise<Row[]> {
  const bare = (): Promise<ProcessRun> => job(folder, photo, size24, [])
  const first = await bare()
  const rows: Row[] = [
    { work: 'The bare photo', ours: first.ms, memory: first.memory, reach: '≤ 0.7 GB', within: first.memory <= BARE_BYTES },
  ]
  for (const { kind, label, startingLooks, family } of effectDefinitions) {
    const runs = startingLooks.map(({ id, name }) => ({
      work: `${label}: ${name}`,
      above: family === 'finish' ? ABOVE_BARE_FINISH_MS : ABOVE_BARE_MS,
      run: () => job(folder, photo, size24, [newEffect(size24, { kind, look: id, id: 'one' })]),
    }))
    rows.push(...(await besideBare(bare, runs)))
  }
  return rows
}

/** What ends a picture, in the order of practice. */
export function finishOf(photo: Size): Effect[] {
  return (['adjust', 'colourBalance', 'curves', 'vignette', 'grain', 'colourTable'] as const).map((kind) =>
    newEffect(photo, { kind, id: kind }),
  )
}

/** What is done to the photo itself, and a whole finish, at 24 MP. */
export async function finishRows(folder: string, photo: string): Promise<Row[]> {
  const bare = (): Promise<ProcessRun> => job(folder, photo, size24, [])
  const tone = startingTone(size24)
  const repair = { id: 'r', x: 3000, y: 2000, radius: 60, fromX: 3200, fromY: 2050, soft: 25, keeps: 'nothing' } as const
  const groundworks: readonly (readonly [string, number, Partial<Groundwork>])[] = [
    ['noise, light and colour', 4000, { noise: { luminance: 25, colour: 25 } }],
    [
      'exposure, contrast, warmth',
      ABOVE_BARE_FINISH_MS,
      { tone: { pattern: { ...tone.pattern, exposure: 0.5, contrast: 20 }, shape: { ...tone.shape, warmth: 15 } } },
    ],
    ['a spot mended', ABOVE_BARE_FINISH_MS, { repairs: [repair] }],
    ['straightened by 3°', ABOVE_BARE_FINISH_MS, { crop: largestCrop(size24, 3) }],
  ]
  return besideBare(bare, [
    ...groundworks.map(([words, above, groundwork]) => ({
      work: `Photo: ${words}`,
      above,
      run: () => job(folder, photo, size24, [], groundwork),
    })),
    {
      work: 'Adjust, colour balance, curves, vignette, grain, colour table',
      above: 3000,
      run: () => job(folder, photo, size24, finishOf(size24)),
    },
  ])
}

/** Five, ten and twenty mixed effects with masks at 6, 24 and 60 MP. */
export async function stackRows(folder: string): Promise<Row[]> {
  const rows: Row[] = []
  const times: Record<string, number> = {}
  const limits: Readonly<Record<string, readonly [number, number]>> = { '5 24': [9e3, 1e9], '10 24': [15e3, 1.1e9], '10 60': [40e3, 2.2e9] }
  for (const [megapixels, width, height] of [
    [6, WIDTH / 2, HEIGHT / 2],
    [24, WIDTH, HEIGHT],
    [60, 9486, 6324],
  ] as const) {
    const size = { width, height }
    const photo = join(folder, `photo-${megapixels}.jpg`)
    await sharp(testPixels(), { raw: { width: WIDTH, height: HEIGHT, channels: 4 } })
      .removeAlpha()
      .resize(width, height, { fit: 'fill' })
      .jpeg({ quality: 90 })
      .toFile(photo)
    for (const count of [5, 10, 20]) {
      const run = await job(folder, photo, size, mixedStack(size, count))
      times[`${count} ${megapixels}`] = run.ms
      const [ms, memory] = limits[`${count} ${megapixels}`] ?? []
      const limit = ms && memory ? { ms, memory, words: `≤ ${ms / 1e3} s, ${memory / 1e9} GB` } : undefined
      rows.push(rowOf(`${count} mixed effects with masks, ${megapixels} MP`, run, limit))
    }
  }
  const growth = (work: string, larger: string, smaller: string, by: number, name: string): Row =>
    ratioRow(work, { ours: times[larger] ?? NaN, other: times[smaller] ?? NaN }, name, by)
  return [
    ...rows,
    growth('growth with the photo: 10 effects, 60 MP', '10 60', '10 24', 2.5, '24 MP'),
    growth('growth with the photo: 10 effects, 24 MP', '10 24', '10 6', 4, '6 MP'),
    growth('growth with the stack: 10 effects, 24 MP', '10 24', '5 24', 2, '5 effects'),
    growth('growth with the stack: 20 effects, 24 MP', '20 24', '10 24', 2, '10 effects'),
  ]
}

interface Limit {
  readonly ms: number
  readonly memory: number
  readonly words: string
}

function rowOf(work: string, { ms, memory, failure }: ProcessRun, limit: Limit | undefined): Row {
  const made = { work, ours: ms, memory, ...(failure ? { remark: `fails: ${failure}` } : {}) }
  return limit ? { ...made, reach: limit.words, within: !failure && ms <= limit.ms && memory <= limit.memory } : made
}
