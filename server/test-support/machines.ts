import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdir } from 'node:fs/promises'
import { createServer, type AddressInfo } from 'node:net'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { Redis } from 'ioredis'
import S3rver from 's3rver'

// What a run on several machines needs, all on this one: Redis, an object storage, workers, and the command line.

const main = fileURLToPath(new URL('../dist/welkinar.js', import.meta.url))

/** Environment of a call, beside that of the test. */
export type Environment = Readonly<Record<string, string>>

/** Calls the built command line. */
export function call(
  cwd: string,
  args: readonly string[],
  env: Environment = {},
): Promise<{ readonly code: number; readonly out: string; readonly error: string }> {
  return new Promise((resolve) => {
    execFile('node', [main, ...args], { cwd, env: { ...process.env, ...env } }, (error, stdout, stderr) =>
      resolve({ code: error ? Number(error.code) : 0, out: stdout, error: stderr.trim() }),
    )
  })
}

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1')
  await once(server, 'listening')
  const { port } = server.address() as AddressInfo
  server.close()
  await once(server, 'close')
  return port
}

/** A Redis that writes down each change, as one does that is to outlive its end. */
export class OwnRedis {
  readonly url: string
  private process: ChildProcess | undefined

  private constructor(
    private readonly folder: string,
    readonly port: number,
  ) {
    this.url = `redis://127.0.0.1:${port}`
  }

  static async start(folder: string): Promise<OwnRedis> {
    await mkdir(folder, { recursive: true })
    const redis = new OwnRedis(folder, await freePort())
    await redis.begin()
    return redis
  }

  async begin(): Promise<void> {
    const options = ['--port', String(this.port), '--bind', '127.0.0.1', '--dir', this.folder, '--appendonly', 'yes', '--save', '']
    this.process = spawn('redis-server', options, { stdio: 'ignore' })
    const client = new Redis(this.url, { maxRetriesPerRequest: null, retryStrategy: () => 50 }).on('error', () => undefined)
    await client.ping()
    client.disconnect()
  }

  /** Ends it as a failure does. */
  async end(): Promise<void> {
    this.process?.kill('SIGKILL')
    if (this.process) await once(this.process, 'exit')
  }

  async ask(...command: readonly [string, ...string[]]): Promise<unknown> {
    const client = new Redis(this.url)
    const [name, ...args] = command
    return client.call(name, args).finally(() => client.disconnect())
  }
}

/** An object storage with one bucket, and the environment that leads to it. */
export async function startStorage(
  directory: string,
  bucket: string,
): Promise<{ readonly env: Environment; readonly end: () => Promise<void> }> {
  const storage = new S3rver({ port: 0, address: '127.0.0.1', silent: true, directory, configureBuckets: [{ name: bucket, configs: [] }] })
  const { port } = await storage.run()
  const env = {
    AWS_ENDPOINT_URL: `http://127.0.0.1:${port}`,
    AWS_ACCESS_KEY_ID: 'S3RVER',
    AWS_SECRET_ACCESS_KEY: 'S3RVER',
    AWS_REGION: 'us-east-1',
  }
  return { env, end: () => storage.close() }
}

/** What a worker says. */
export interface Said {
  readonly step: 'waiting' | 'taken' | 'done'
  readonly index?: number
  readonly photo?: string
  /** Of the process that computes. */
  readonly process?: number
  readonly results?: readonly { readonly what: string; readonly out: string }[]
}

/** A worker as a machine of its own would have it. */
export class OwnWorker {
  readonly said: Said[] = []

  private constructor(private readonly child: ChildProcess) {}

  /** @param lease how long it may be silent until its jobs are another's, seconds */
  static async start(url: string, env: Environment = {}, onSaid?: (said: Said, worker: OwnWorker) => void, lease = 30): Promise<OwnWorker> {
    const args = [main, 'worker', '--threads', '1', '--lease', String(lease), '--progress']
    const child = spawn('node', args, { stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, ...env, WELKINAR_REDIS: url } })
    const worker = new OwnWorker(child)
    const ready = new Promise<void>((resolve) => {
      createInterface({ input: child.stdout }).on('line', (line) => {
        const said = JSON.parse(line) as Said
        worker.said.push(said)
        if (said.step === 'waiting') resolve()
        onSaid?.(said, worker)
      })
    })
    await ready
    return worker
  }

  /** Ends it as a power cut does, with the process that computes. */
  async kill(): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const computing = this.said.findLast((one) => one.process !== undefined)?.process
    this.child.kill('SIGKILL')
    if (computing !== undefined) endProcess(computing, 'SIGKILL')
    await once(this.child, 'exit')
  }

  /** Ends it as a person does. Returns its code. */
  async end(): Promise<number | null> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return this.child.exitCode
    this.child.kill('SIGTERM')
    const [code] = (await once(this.child, 'exit')) as [number | null]
    return code
  }
}

export function endProcess(pid: number, signal: NodeJS.Signals): void {
  try {
    process.kill(pid, signal)
  } catch {
    // It has ended already.
  }
}
