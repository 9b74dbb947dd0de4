import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const everything = Boolean(process.env['WELKINAR_EVERY_LOOK'])

export default defineConfig({
  test: {
    // What a person waits for comes when it comes; the pictures of a busy machine take a while.
    expect: { poll: { timeout: 8000, interval: 100 } },
    // What takes long by its nature is for the soak.
    include: everything ? ['tests/**/*.{e2e,soak}.ts'] : ['tests/**/*.e2e.ts'],
    globalSetup: [fileURLToPath(new URL('./support/serve.ts', import.meta.url))],
    testTimeout: 90_000,
    hookTimeout: 60_000,
    // Each file has a browser of its own, and changes nothing that others read; a worker loads each module once.
    isolate: false,
    maxWorkers: 2,
  },
})
