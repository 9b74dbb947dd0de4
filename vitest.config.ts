import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,app,server,demo}/**/*.test.ts'],
    exclude: ['**/node_modules/**', '**/dist/**'],
    testTimeout: 60_000,
    // Nothing else runs beside them.
    maxWorkers: '100%',
  },
})
