import { once } from 'node:events'
import { appendFile, mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { UserProblem } from '@welkinar/core'
import { fastify } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { OwnRedis } from '../../test-support/machines'
import { ProcessDied } from '../runs/jobProcess'
import type { Carried, FileResult } from '../runs/plan'
import { EmbeddedQueue } from './embeddedQueue'
import type { Ended, JobQueue, Work } from './jobQueue'
import { addQueueRoutes } from './queueRoutes'
import { RedisQueue } from './redisQueue'

const jobsOf = (run: string, count: number): Carried[] => Array.from({ length: count }, (_, index) => ({ run, index, store: '/nowhere' }))
const made = (index: number): FileResult[] => [{ photo: `${index}.png`, out: `${index}.png`, what: 'made', words: [] }]
const GIVEN_UP = { problem: 'It has ended what computed it 3 times, and is given up.' }

let folder: string
let redis: OwnRedis
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-queue-'))
  redis = await OwnRedis.start(join(folder, 'redis'))
})
afterAll(async () => {
  await redis.end()
  await rm(folder, { recursive: true })
})

/** How all jobs ended, by their numbers. */
async function followed(queue: JobQueue, jobs: readonly Carried[]): Promise<ReadonlyMap<number, Ended>> {
  const ends = new Map<number, Ended>()
  await queue.follow(jobs, ({ index }, ended) => {
    expect(ends.has(index), `job ${index} ended once`).toBe(false)
    ends.set(index, ended)
  })
  return ends
}

describe.each([
  ['of one process', (): Promise<JobQueue> => EmbeddedQueue.open(join(folder, 'journal'))],
  ['on Redis', (): Promise<JobQueue> => RedisQueue.open(redis.url)],
] as const)('a queue %s', (_, open) => {
  it('gives each job to one slot, tells how each ended, and gives up what is lost three times', async () => {
    const queue = await open()
    const taken: number[] = []
    let working = 0
    let isMet: () => void
    // The first to be taken waits for the second: two are worked on at the same time.
    const met = new Promise<void>((resolve) => (isMet = resolve))
    const work: Work = async ({ index }) => {
      taken.push(index)
      if (++working === 2) isMet()
      await met
      working--
      if (index === 3) throw new ProcessDied('The process of the job has ended.')
      if (index === 5) throw new UserProblem('The run cannot be read.')
      return made(index)
    }
    const stop = await queue.serve([work, work])
    const ends = await followed(queue, jobsOf('one', 8))
    expect(ends.get(3)).toEqual(GIVEN_UP)
    expect(ends.get(5)).toEqual({ problem: 'The run cannot be read.' })
    expect(ends.get(7)).toEqual({ results: made(7) })
    expect(taken.toSorted()).toEqual([0, 1, 2, 3, 3, 3, 4, 5, 6, 7])
    expect(working).toBe(0)
    // What has ended may be asked for again.
    expect((await followed(queue, jobsOf('one', 2))).get(1)).toEqual({ results: made(1) })
    await stop()
    await queue.close()
  })
})

describe('the queue of one process', () => {
  it('remembers what ended the process, and forgets it with the end of the run', async () => {
    const path = join(folder, 'remembered')
    await appendFile(path, ['taken', 'taken', 'taken'].map((is) => `${JSON.stringify({ job: 'r:0', is })}\n`).join(''))
    await appendFile(path, `${JSON.stringify({ job: 'r:1', is: 'taken' })}\n${JSON.stringify({ job: 'r:1', is: 'ended' })}\n{"job":"to`)
    const queue = await EmbeddedQueue.open(path)
    const stop = await queue.serve([({ index }) => Promise.resolve(made(index))])
    const ends = await followed(queue, jobsOf('r', 2))
    await stop()
    expect([...ends]).toEqual([
      [0, GIVEN_UP],
      [1, { results: made(1) }],
    ])
    expect(await readdir(folder)).not.toContain('remembered')
  })
})

describe('the queue on Redis', () => {
  it('renews the lease of who is slow: nobody else gets its job', async () => {
    const lease = 300
    const [one, other, asking] = await Promise.all([
      RedisQueue.open(redis.url, { lease }),
      RedisQueue.open(redis.url, { lease }),
      RedisQueue.open(redis.url),
    ])
    const taken: string[] = []
    const slow =
      (name: string): Work =>
      async ({ index }) => {
        taken.push(name)
        // Several leases long; a worker that is alive renews them meanwhile.
        await new Promise((resolve) => setTimeout(resolve, 5 * lease))
        return made(index)
      }
    const stops = [await one.serve([slow('one')]), await other.serve([slow('other')])]
    const ends = await followed(asking, jobsOf('slow', 1))
    expect(ends.get(0)).toEqual({ results: made(0) })
    expect(taken).toHaveLength(1)
    await Promise.all(stops.map((stop) => stop()))
    await Promise.all([one, other, asking].map((queue) => queue.close()))
  })

  it('carries at most a kilobyte of a job', async () => {
    const keys = (await redis.ask('keys', 'welkinar:*:slow.0')) as string[]
    expect(keys).toHaveLength(1)
    const data = (await redis.ask('hget', keys[0]!, 'data')) as string
    expect(data.length).toBeLessThanOrEqual(1024)
  })

  it('is refused by a Redis that is too old', async () => {
    const info = 'redis_version:5.0.7\r\n'
    const old = createServer((socket) =>
      socket
        .on('data', (asked) => socket.write(`$${info.length}\r\n${info}\r\n`.repeat(String(asked).split(/^\*\d+\r$/m).length - 1)))
        .on('error', () => undefined),
    )
    old.listen(0, '127.0.0.1')
    await once(old, 'listening')
    const { port } = old.address() as AddressInfo
    await expect(RedisQueue.open(`redis://127.0.0.1:${port}`)).rejects.toThrow(
      `Redis at 127.0.0.1:${port} is version 5.0; 6.2 or later is needed.`,
    )
    old.close()
  })
})

describe('the page of the queue', () => {
  const serverOf = (address: string | undefined, isOpen = false) => {
    const server = fastify()
    addQueueRoutes(server, { address, isOpen, nonce: () => 'nonce' })
    return server
  }

  it('shows what waits, who works and what failed, as text; and the same in numbers', async () => {
    const queue = await RedisQueue.open(redis.url)
    const stop = await queue.serve([() => Promise.resolve([{ photo: 'x', out: 'x', what: 'failed', words: ['“<b>” cannot be opened.'] }])])
    await followed(queue, [{ run: 'bad', index: 0, store: '/x', photo: '<i>.png', names: ['i.png'] }])
    const server = serverOf(redis.url)
    const { body, headers } = await server.inject('/queue')
    expect(headers['content-type']).toMatch('text/html')
    expect(body).toContain('1 worker takes photos.')
    expect(body).toMatch(new RegExp(`<li>[\\w.-]+-${process.pid}</li>`))
    expect(body).toContain('&lt;i&gt;.png<span>“&lt;b&gt;” cannot be opened.</span>')
    // https://prometheus.io/docs/instrumenting/exposition_formats/
    const metrics = await server.inject('/metrics')
    expect(metrics.headers['content-type']).toMatch(/^text\/plain; version=0\.0\.4/)
    expect(metrics.body).toMatch(/^welkinar_queue_workers 1$/m)
    expect(metrics.body).toMatch(/^welkinar_queue_photos\{state="waiting"\} 0$/m)
    expect(Number(/^welkinar_queue_ended_photos\{how="failed"\} (\d+)$/m.exec(metrics.body)?.[1])).toBeGreaterThanOrEqual(1)
    await stop()
    await queue.close()
    await server.close()
  })

  it('is for this machine, unless it is opened', async () => {
    const closed = serverOf(undefined)
    for (const url of ['/queue', '/metrics']) {
      expect((await closed.inject({ url, remoteAddress: '10.1.2.3' })).statusCode).toBe(403)
      expect((await closed.inject({ url, remoteAddress: '::ffff:127.0.0.1' })).statusCode).toBe(503)
      expect((await serverOf(undefined, true).inject({ url, remoteAddress: '10.1.2.3' })).statusCode).toBe(503)
    }
    expect((await closed.inject('/queue')).body).toContain('No queue is followed.')
  })

  it('says if Redis does not answer', async () => {
    expect((await serverOf('redis://127.0.0.1:1').inject('/queue')).body).toContain('Redis at 127.0.0.1:1 does not answer.')
  })
})

it('the journal of a queue holds whole lines', async () => {
  const path = join(folder, 'lines')
  const queue = await EmbeddedQueue.open(path)
  let journal = ''
  const stop = await queue.serve([
    async ({ index }) => {
      journal = await readFile(path, 'utf8')
      return made(index)
    },
  ])
  await followed(queue, jobsOf('l', 1))
  await stop()
  expect(journal).toBe(`${JSON.stringify({ job: 'l:0', is: 'taken' })}\n`)
})
