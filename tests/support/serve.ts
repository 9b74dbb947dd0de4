import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import type { TestProject } from 'vitest/node'

declare module 'vitest' {
  export interface ProvidedContext {
    address: string
  }
}

/** Serves the built application as `npm start` does, on a free port, for all end-to-end tests. */
export default async function serve(project: TestProject): Promise<() => void> {
  const main = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url))
  const server = spawn('node', [main], { env: { ...process.env, PORT: '0' }, stdio: ['ignore', 'pipe', 'inherit'] })
  const address = await new Promise<string>((resolve, reject) => {
    server.stdout.on('data', (chunk: Buffer) => {
      const match = /open at (\S+)/.exec(chunk.toString())
      if (match?.[1]) resolve(match[1])
    })
    server.on('exit', (code) => reject(new Error(`The server ended with ${code}.`)))
  })
  project.provide('address', address)
  return () => void server.kill()
}
