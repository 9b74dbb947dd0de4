import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,app,server,demo}/**/*.test.ts'],
    exclude: ['**/node_modules/**', '**/dist/**'],
    testTimeout: 60_000,
    // Test pictures are made once for a file, all of them in the soak.
    hookTimeout: 60_000,
    // No test changes what others read, so that a worker loads each module once.
    isolate: false,
    // Nothing else runs beside them.
    maxWorkers: '100%',
  },
})
