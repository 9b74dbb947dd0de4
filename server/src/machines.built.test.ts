import { createHash } from 'node:crypto'
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { newEffect, newMask, noMarks, parseRecipe } from '@welkinar/core'
import { writeBundle } from '@welkinar/core/recipes'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { call, endProcess, OwnRedis, OwnWorker, startStorage, type Environment, type Said } from '../test-support/machines'

// The built command line with workers on Redis and files in object storage, each in a process of its own.

const everything = Boolean(process.env['WELKINAR_EVERY_LOOK'])
const [width, height] = [96, 64]
const BUCKET = 'photos'

let folder: string
let redis: OwnRedis
let storage: { readonly env: Environment; readonly end: () => Promise<void> }
const at = (...parts: string[]) => join(folder, ...parts)
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const photo = (red: number) =>
  sharp({ create: { width, height, channels: 3, background: { r: red, g: 80, b: 90 } } })
    .png()
    .toBuffer()

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-machines-'))
  redis = await OwnRedis.start(at('redis'))
  storage = await startStorage(at('storage'), BUCKET)
  const recipe = { format: 'welkinar-recipe', version: 1, name: 'Rain', madeFor: { width, height } }
  await writeFile(
    at('rain.json'),
    JSON.stringify({ ...recipe, effects: [newEffect({ width, height }, { kind: 'rain', look: 'downpour', id: 'a' })] }),
  )
  await writeFile(at('all.welkinar'), await everySort())
  await mkdir(at('in'))
  for (let i = 0; i < 4; i++) await writeFile(at('in', `${i}.png`), await photo(40 + 30 * i))
  // Takes long enough to be ended while it is worked on.
  await writeFile(
    at('in', 'large.png'),
    await sharp(await photo(90))
      .resize(2400, 1600)
      .png()
      .toBuffer(),
  )
})
afterAll(async () => {
  await storage.end()
  await redis.end()
  await rm(folder, { recursive: true })
})

/** A recipe with an overlay, a mask that is a picture, and a crop. */
async function everySort(): Promise<Uint8Array> {
  const cut = new Uint8Array(
    await sharp({ create: { width: 32, height: 32, channels: 4, background: { r: 200, g: 180, b: 20, alpha: 0.5 } } })
      .png()
      .toBuffer(),
  )
  const grey = new Uint8Array(
    await sharp({ create: { width: 48, height: 32, channels: 3, background: '#808080' } })
      .png()
      .toBuffer(),
  )
  const overlay = newEffect({ width, height }, { kind: 'overlay', look: 'as-it-is', id: 'overlay' })
  if (overlay.kind !== 'overlay') throw new Error('Not an overlay.')
  Object.assign(overlay.controls.pattern, {
    x: 48,
    y: 32,
    width: 40,
    picture: { id: `${sha256(cut)}.colour`, fileName: 'cut.png', width: 32, height: 32 },
  })
  const mask = newMask({ width, height }, { kind: 'picture', id: 'mask', join: 'keep', marks: noMarks })
  Object.assign(mask, { picture: { id: `${sha256(grey)}.colour`, fileName: 'grey.png', width: 48, height: 32 } })
  overlay.where.masks.push(mask)
  const rain = newEffect({ width, height }, { kind: 'rain', look: 'downpour', id: 'rain' })
  const groundwork = { crop: { x: 8, y: 4, width: 72, height: 48, turn: 3 }, tone: null }
  const text = JSON.stringify({
    format: 'welkinar-recipe',
    version: 3,
    minor: 2,
    name: 'All',
    madeFor: { width, height },
    effects: [rain, overlay],
    groups: [],
    pinned: [],
    tags: [],
    anchors: [],
    groundwork,
    amount: 1,
  })
  return writeBundle({
    recipes: [parseRecipe(text, 'all.json')],
    pictures: new Map([
      [sha256(cut), cut],
      [sha256(grey), grey],
    ]),
  })
}

interface Report {
  readonly made: number
  readonly unchanged: number
  readonly failed: number
  readonly files: readonly { readonly photo: string; readonly out: string; readonly what: string; readonly words: readonly string[] }[]
}

/** A batch, and its report. */
async function batch(args: readonly string[], env: Environment = {}): Promise<Report & { readonly code: number }> {
  const { code, out, error } = await call(folder, ['batch', '--json', '--threads', '1', ...args], env)
  if (!out) throw new Error(error)
  return { ...(JSON.parse(out) as Report), code }
}

/** Uses the object storage as a client of its own. */
async function objects(prefix: string): Promise<ReadonlyMap<string, Uint8Array>> {
  const { S3Client, ListObjectsV2Command, GetObjectCommand } = await import('@aws-sdk/client-s3')
  const client = new S3Client({
    endpoint: storage.env['AWS_ENDPOINT_URL']!,
    forcePathStyle: true,
    region: 'us-east-1',
    credentials: { accessKeyId: 'S3RVER', secretAccessKey: 'S3RVER' },
  })
  const { Contents = [] } = await client.send(new ListObjectsV2Command({ Bucket: BUCKET, Prefix: prefix }))
  const found = new Map<string, Uint8Array>()
  for (const { Key = '' } of Contents) {
    const { Body } = await client.send(new GetObjectCommand({ Bucket: BUCKET, Key }))
    found.set(Key.slice(prefix.length), await Body!.transformToByteArray())
  }
  client.destroy()
  return found
}

describe('the same photos', () => {
  it('have the same bytes one by one, by the queue of one machine, by workers on Redis, and in object storage', async () => {
    const asked = ['--recipe', 'all.welkinar', '--colours', 'display-p3', '--bits', '16', '--photos', 'in/0.png', 'in/3.png']
    const worker = await OwnWorker.start(redis.url, storage.env)
    const [here, shared, stored] = await Promise.all([
      batch([...asked, '--out', 'here', '--formats', 'png,tif', '--jobs', '2']),
      batch([...asked, '--out', 'shared', '--formats', 'png,tif'], { WELKINAR_REDIS: redis.url }),
      batch([...asked, '--out', `s3://${BUCKET}/out`, '--formats', 'png,tif'], { ...storage.env, WELKINAR_REDIS: redis.url }),
    ])
    for (const report of [here, shared, stored]) expect(report).toMatchObject({ code: 0, made: 4, failed: 0 })
    // Photos that lie in the storage, by the queue of this machine.
    const again = await batch(['--recipe', 'all.welkinar', '--photos', `s3://${BUCKET}/out/*.png`, '--out', 'from-storage'], storage.env)
    expect(again).toMatchObject({ code: 0, made: 2 })
    expect(await worker.end()).toBe(0)
    const inStorage = await objects('out/')
    for (const name of ['0.png', '3.png', '0.tif', '3.tif']) {
      const one = await call(folder, ['render', '--photo', `in/${name.slice(0, 1)}.png`, ...asked.slice(0, 6), '--out', `one-${name}`])
      expect(one).toMatchObject({ code: 0, error: '' })
      const bytes = await readFile(at(`one-${name}`))
      expect((await sharp(bytes).metadata()).depth).toBe('ushort')
      expect(bytes.equals(await readFile(at('here', name))), `${name} by the queue of one machine`).toBe(true)
      expect(bytes.equals(await readFile(at('shared', name))), `${name} by Redis`).toBe(true)
      expect(bytes.equals(Buffer.from(inStorage.get(name) ?? [])), `${name} in object storage`).toBe(true)
    }
    // A rerun writes nothing, wherever the notes lie.
    expect(await batch([...asked, '--out', 'shared', '--formats', 'png,tif'])).toMatchObject({ code: 0, made: 0, unchanged: 4 })
  })
})

describe('workers that die', () => {
  const many = everything ? 500 : 36
  const places = [
    ['in a folder', (): string => at('many-out'), (): Environment => ({})],
    ['in object storage', (): string => `s3://${BUCKET}/many-out`, (): Environment => storage.env],
  ] as const

  it.each(everything ? places : places.slice(1))(
    'leave one whole and right file for each name %s, and what was done is not done again',
    async (_, out, env) => {
      await mkdir(at('many'), { recursive: true })
      for (let i = 0; i < many; i++) await writeFile(at('many', `${i}.png`), await photo(i % 256))
      const workers: OwnWorker[] = []
      const over: OwnWorker[] = []
      let done = 0
      // Half of them are ended while they work, at once after they have taken a photo; Redis goes once.
      const heard = (said: Said, worker: OwnWorker): void => {
        if (said.step === 'done') done++
        if (said.step !== 'taken' || worker.said.length !== many / 6 || over.length === 3) return
        over.push(worker)
        void worker.kill().then(begin)
      }
      const begin = async (): Promise<void> => {
        workers.push(await OwnWorker.start(redis.url, env(), heard, 1))
      }
      await Promise.all([begin(), begin()])
      const running = batch(['--recipe', 'rain.json', '--photos', 'many/*.png', '--out', out()], { ...env(), WELKINAR_REDIS: redis.url })
      await expect.poll(() => done, { timeout: everything ? 600_000 : 60_000, interval: 20 }).toBeGreaterThan(many / 3)
      await redis.end()
      await redis.begin()
      expect(await running).toMatchObject({ code: 0, failed: 0 })
      for (const worker of workers) await worker.kill()
      expect(over.length).toBe(3)
      // Each photo was made once, and once more at the most for each worker that was ended and each end of Redis.
      const made = workers.flatMap(({ said }) => said.flatMap(({ results = [] }) => results.filter(({ what }) => what === 'made'))).length
      expect(made).toBeLessThanOrEqual(many + over.length + 2)
      const files = out().startsWith('s3:')
        ? [...(await objects('many-out/'))].filter(([name]) => !name.startsWith('runs/'))
        : await Promise.all(
            (await readdir(out()))
              .filter((name) => /^[^.].*\.png$/.test(name))
              .map(async (name) => [name, await readFile(join(out(), name))] as const),
          )
      expect(files.map(([name]) => name).toSorted()).toEqual(Array.from({ length: many }, (__, i) => `${i}.png`).toSorted())
      // What one call makes of them is what is right.
      const right = await batch(['--recipe', 'rain.json', '--photos', 'many/*.png', '--out', 'many-right'])
      expect(right).toMatchObject({ failed: 0 })
      for (const [name, bytes] of files) expect(sha256(bytes), name).toBe(sha256(await readFile(at('many-right', name))))
    },
    everything ? 900_000 : 60_000,
  )

  it('give up a photo that has ended three of them, and make the others', async () => {
    const worker = await OwnWorker.start(redis.url, {}, ({ step, photo: taken, process: pid }) => {
      if (step === 'taken' && taken?.endsWith('large.png') && pid !== undefined) endProcess(pid, 'SIGABRT')
    })
    const report = await batch(['--recipe', 'rain.json', '--photos', 'in/*.png', '--out', 'given-up'], { WELKINAR_REDIS: redis.url })
    await worker.end()
    expect(report).toMatchObject({ code: 1, made: 4, failed: 1 })
    expect(report.files.find(({ what }) => what === 'failed')).toMatchObject({
      photo: 'in/large.png',
      words: ['It has ended what computed it 3 times, and is given up.'],
    })
    expect(worker.said.filter(({ step, photo: taken }) => step === 'taken' && taken?.endsWith('large.png'))).toHaveLength(3)
    expect((await readdir(at('given-up'))).filter((name) => !/^\d\.png$|^runs$/.test(name))).toEqual([])
  })
})

describe('a call that cannot be carried out', () => {
  const asked = ['batch', '--recipe', 'rain.json', '--photos', 'in/*.png', '--out', 'no']

  it.each([
    [[...asked, '--redis', 'redis://127.0.0.1:1'], 2, /^Redis at 127\.0\.0\.1:1 does not answer\.$/],
    [[...asked, '--redis', 'queue.example'], 2, /^“queue\.example” is no address of Redis; those are redis:\/\/host:6379\.$/],
    [[...asked, '--redis', 'redis://:secret@127.0.0.1:1'], 2, /^An address with a password stands in the environment, as WELKINAR_REDIS\./],
    [['worker', '--redis', 'redis://127.0.0.1:1'], 2, /does not answer\.$/],
    [['worker'], 2, /Required option '--redis <url>' not specified\./],
    [[...asked, '--jobs', '0'], 2, /It is a number from 1 to 64\./],
    [
      ['batch', '--recipe', 'rain.json', '--photos', 's3://photos/none/*.jpg', '--out', 'no'],
      2,
      /^--photos names no file: “s3:\/\/photos\/none\/\*\.jpg”\.$/,
    ],
    [
      ['batch', '--recipe', 'rain.json', '--photos', 'in/0.png', '--out', 's3://elsewhere/out'],
      1,
      /^“s3:\/\/elsewhere\/out\/.*” cannot be \w+: there is no such bucket\.$/,
    ],
    [['batch', '--recipe', 'rain.json', '--photos', 'in/0.png', '--out', 's3://'], 2, /^“s3:\/\/” is no address of an object storage/],
  ] as const)('%j ends with %i and one line', async (args, code, words) => {
    const ended = await call(folder, args, storage.env)
    expect(ended.error).toMatch(words)
    expect(ended.error).not.toContain('secret')
    expect(ended.code).toBe(code)
  })

  it('a Redis that is full says so', async () => {
    await redis.ask('config', 'set', 'maxmemory', '1mb')
    try {
      const ended = await call(folder, [...asked, '--redis', redis.url])
      expect(ended).toMatchObject({ code: 1 })
      expect(ended.error).toMatch(/Redis has no room left for the jobs; its maxmemory is reached\.$/)
    } finally {
      await redis.ask('config', 'set', 'maxmemory', '0')
    }
  })
})
