import { randomBytes } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import type { ServerResponse } from 'node:http'
import { fileURLToPath } from 'node:url'
import helmet from '@fastify/helmet'
import files from '@fastify/static'
import { fastify, type FastifyInstance, type FastifyReply } from 'fastify'
import { addQueueRoutes } from './queue/queueRoutes'

interface ServerOptions {
  /** 0 takes any free port. */
  readonly port: number
  readonly host: string
  /** Address of the Redis of the queue that is shown. */
  readonly redis?: string | undefined
  /** Whether others than this machine may see the queue. */
  readonly showsQueue?: boolean
}

const built = fileURLToPath(new URL('../../app/dist/', import.meta.url))
const demo = fileURLToPath(new URL('../../demo/photos/', import.meta.url))

/** Serves the built application, cross-origin isolated, and nothing from anywhere else. Returns its address. */
export async function startServer({ port, host, redis, showsQueue = false }: ServerOptions): Promise<string> {
  const server = fastify()
  await addSecurity(server)
  const page = await readFile(`${built}index.html`, 'utf8')
  const sendPage = (reply: FastifyReply): FastifyReply =>
    reply
      .type('text/html')
      .header('Cache-Control', 'no-cache')
      .send(page.replace('__NONCE__', nonceOf(reply.raw)))
  // Only what has a hash in its name stays as it is.
  await server.register(files, {
    root: `${built}assets/`,
    prefix: '/assets/',
    wildcard: false,
    immutable: true,
    maxAge: '1y',
    preCompressed: true,
  })
  await server.register(files, { root: demo, prefix: '/demo/', decorateReply: false })
  await server.register(files, {
    root: built,
    wildcard: false,
    index: false,
    globIgnore: ['index.html', 'assets/**'],
    decorateReply: false,
  })
  server.get('/', (_, reply) => sendPage(reply))
  server.get('/index.html', (_, reply) => sendPage(reply))
  addQueueRoutes(server, { address: redis, isOpen: showsQueue, nonce: (reply) => nonceOf(reply.raw) })
  // Every address of the application is the same page; a missing file is missing.
  server.setNotFoundHandler((request, reply) =>
    (request.method === 'GET' || request.method === 'HEAD') && !/\.\w+$/.test(request.url.split('?')[0] ?? '')
      ? sendPage(reply)
      : reply.code(404).type('text/plain').send('There is nothing here.'),
  )
  return server.listen({ port, host })
}

const nonces = new WeakMap<ServerResponse, string>()

function nonceOf(response: ServerResponse): string {
  let nonce = nonces.get(response)
  if (!nonce) {
    nonce = randomBytes(16).toString('base64')
    nonces.set(response, nonce)
  }
  return nonce
}

/** What joins the raw decoder to JavaScript makes its functions from text; a thread has a policy of its own, and none but our scripts. */
const RENDER_THREAD = /^\/assets\/renderThread-[\w-]+\.js$/

/** Isolation for shared memory, and a policy that allows our own files only. Styles carry a nonce of the page. */
async function addSecurity(server: FastifyInstance): Promise<void> {
  await server.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'", ({ url = '' }) => (RENDER_THREAD.test(url) ? "'unsafe-eval'" : "'self'")],
        workerSrc: ["'self'"],
        styleSrc: ["'self'", (_, response) => `'nonce-${nonceOf(response as ServerResponse)}'`],
        styleSrcAttr: ["'unsafe-inline'"],
        imgSrc: ["'self'", 'blob:', 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
  })
}
