import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { chromium, type Browser } from 'playwright-core'
import { chromiumPath } from '../../tests/support/chromium'

/** Does something with the built application in Chromium. */
export async function inChromium<T>(work: (browser: Browser, address: string) => Promise<T>): Promise<T> {
  const server = await serve()
  const browser = await chromium.launch({
    executablePath: chromiumPath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  try {
    return await work(browser, server.address)
  } finally {
    await browser.close()
    server.stop()
  }
}

async function serve(): Promise<{ address: string; stop(): void }> {
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
