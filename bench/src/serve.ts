import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'

/** The built application, served for as long as it is wanted. */
export async function serve(): Promise<{ address: string; stop(): void }> {
  const main = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url))
  const server = spawn('node', [main], { env: { ...process.env, PORT: '0' }, stdio: ['ignore', 'pipe', 'inherit'] })
  const address = await new Promise<string>((resolve) => {
    server.stdout.on('data', (chunk: Buffer) => {
      const found = /open at (\S+)/.exec(chunk.toString())?.[1]
      if (found) resolve(found)
    })
  })
  return { address, stop: () => void server.kill() }
}
