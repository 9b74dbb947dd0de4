import { randomBytes } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import helmet from '@fastify/helmet'
import files from '@fastify/static'
import { fastify, type FastifyInstance, type FastifyReply } from 'fastify'

interface ServerOptions {
  /** 0 takes any free port. */
  readonly port: number
  readonly host: string
}

const built = fileURLToPath(new URL('../../app/dist/', import.meta.url))
const demo = fileURLToPath(new URL('../../demo/photos/', import.meta.url))

/** Serves the built application, cross-origin isolated, and nothing from anywhere else. Returns its address. */
export async function startServer({ port, host }: ServerOptions): Promise<string> {
  const server = fastify()
  await addSecurity(server)
  await server.register(files, { root: demo, prefix: '/demo/', decorateReply: false })
  await server.register(files, { root: built, index: false, wildcard: false, immutable: true, maxAge: '1y' })
  const page = await readFile(`${built}index.html`, 'utf8')
  const sendPage = (reply: FastifyReply): FastifyReply =>
    reply
      .type('text/html')
      .header('Cache-Control', 'no-cache')
      .send(page.replace('__NONCE__', nonceOf(reply)))
  server.get('/', (_, reply) => sendPage(reply))
  // Every address of the application is the same page; a missing file is missing.
  server.setNotFoundHandler((request, reply) =>
    request.method === 'GET' && !/\.\w+$/.test(request.url.split('?')[0] ?? '')
      ? sendPage(reply)
      : reply.code(404).type('text/plain').send('There is nothing here.'),
  )
  return server.listen({ port, host })
}

const nonces = new WeakMap<FastifyReply, string>()

function nonceOf(reply: FastifyReply): string {
  let nonce = nonces.get(reply)
  if (!nonce) {
    nonce = randomBytes(16).toString('base64')
    nonces.set(reply, nonce)
  }
  return nonce
}

/** Isolation for shared memory, and a policy that allows our own files only. Styles carry a nonce of the page. */
async function addSecurity(server: FastifyInstance): Promise<void> {
  await server.register(helmet, {
    contentSecurityPolicy: false,
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
  })
  server.addHook('onSend', async (_, reply) => {
    const policy = [
      "default-src 'none'",
      "script-src 'self' 'wasm-unsafe-eval'",
      "worker-src 'self'",
      `style-src 'self' 'nonce-${nonceOf(reply)}'`,
      "style-src-attr 'unsafe-inline'",
      "img-src 'self' blob: data:",
      "font-src 'self'",
      "connect-src 'self'",
      "base-uri 'none'",
      "form-action 'none'",
      "frame-ancestors 'none'",
    ]
    void reply.header('Content-Security-Policy', policy.join('; '))
  })
}
