import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { Gauge, Registry } from 'prom-client'
import { queuePage } from './queuePage'
import type { QueueStatus } from './queueStatus'

/** Whose status is shown; undefined where the server follows no queue. */
export interface FollowedQueue {
  readonly address: string | undefined
  /** Whether others than this machine may see it. */
  readonly isOpen: boolean
  /** For the style of the page. */
  nonce(reply: FastifyReply): string
}

const LOCAL = /^(::1|(::ffff:)?127\.)/

/** What is read of the queue is read again after this, ms, however many ask. */
const FRESH = 500

/**
 * Adds `/queue`, a page to look at, and `/metrics` in the text format of Prometheus. Both are read only, and for this machine unless they are opened.
 */
export function addQueueRoutes(server: FastifyInstance, { address, isOpen, nonce }: FollowedQueue): void {
  const read = reader(address)
  const refused = (request: FastifyRequest, reply: FastifyReply): FastifyReply | undefined => {
    if (isOpen || LOCAL.test(request.ip)) return undefined
    return reply.code(403).type('text/plain').send('The queue is shown to this machine only; WELKINAR_QUEUE_PAGE=open shows it to others.')
  }
  server.get('/queue', async (request, reply) => {
    const no = refused(request, reply)
    if (no) return no
    const found = await read()
    return reply
      .code(found.status ? 200 : 503)
      .type('text/html')
      .header('Cache-Control', 'no-store')
      .send(queuePage(found, nonce(reply)))
  })
  server.get('/metrics', async (request, reply) => {
    const no = refused(request, reply)
    if (no) return no
    const { status, problem } = await read()
    if (!status) return reply.code(503).type('text/plain').send(`${problem}\n`)
    const registry = metricsOf(status)
    return reply.type(registry.contentType).send(await registry.metrics())
  })
  server.addHook('onClose', async () => (await opened)?.close())

  let opened: Promise<{ status(): Promise<QueueStatus>; close(): Promise<void> }> | undefined

  function reader(url: string | undefined): () => Promise<Found> {
    let last: { readonly at: number; readonly found: Promise<Found> } | undefined
    const now = async (): Promise<Found> => {
      if (url === undefined)
        return { problem: 'No queue is followed. The server is told of one by its environment: WELKINAR_REDIS=redis://…' }
      try {
        // The client of Redis is loaded where there is one.
        opened ??= import('./redisQueue').then(({ RedisQueue }) => RedisQueue.open(url))
        return { status: await (await opened).status() }
      } catch (error) {
        opened = undefined
        return { problem: error instanceof Error ? error.message : String(error) }
      }
    }
    return () => {
      if (!last || Date.now() - last.at > FRESH) last = { at: Date.now(), found: now() }
      return last.found
    }
  }
}

/** What was read of a queue, or why it was not. */
export type Found =
  | { readonly status: QueueStatus; readonly problem?: undefined }
  | { readonly problem: string; readonly status?: undefined }

function metricsOf({ waiting, active, made, failed, perMinute, workers }: QueueStatus): Registry {
  const registry = new Registry()
  const gauge = (name: string, help: string, value: number, labels: Record<string, string> = {}): void => {
    const known = registry.getSingleMetric(name) as Gauge | undefined
    const one = known ?? new Gauge({ name, help, labelNames: Object.keys(labels), registers: [registry] })
    one.set(labels, value)
  }
  gauge('welkinar_queue_photos', 'Photos that are not done yet', waiting, { state: 'waiting' })
  gauge('welkinar_queue_photos', 'Photos that are not done yet', active, { state: 'active' })
  gauge('welkinar_queue_ended_photos', 'Photos that have ended since the queue began', made, { how: 'done' })
  gauge('welkinar_queue_ended_photos', 'Photos that have ended since the queue began', failed, { how: 'failed' })
  gauge('welkinar_queue_photos_last_minute', 'Photos that ended in the last whole minute', perMinute)
  gauge('welkinar_queue_workers', 'Workers that take photos', workers.length)
  return registry
}
