import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['tests/**/*.e2e.ts'],
    globalSetup: [fileURLToPath(new URL('./support/serve.ts', import.meta.url))],
    testTimeout: 90_000,
    hookTimeout: 60_000,
    fileParallelism: false,
  },
})
