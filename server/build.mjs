// Bundles the server, the command line and their worker thread. WebAssembly files stay where their packages put them.
import { rm } from 'node:fs/promises'
import { build } from 'esbuild'

// What an earlier build has left is nobody's.
await rm('dist', { recursive: true, force: true })
await build({
  entryPoints: ['src/main.ts', 'src/welkinar.ts', 'src/jobs.ts', 'src/worker.ts'],
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  // What is imported when it is needed is a file of its own.
  splitting: true,
  // Beside the others, so that each finds its fellows at the same place.
  chunkNames: '[name]-[hash]',
  target: 'node20',
  sourcemap: true,
  // The codecs' glue code expects these in an ES module.
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; import { dirname as __dirnameOf } from 'node:path'; import { fileURLToPath as __pathOf } from 'node:url'; const require = __createRequire(import.meta.url); const __filename = __pathOf(import.meta.url); const __dirname = __dirnameOf(__filename);",
  },
  external: ['sharp', 'fastify', '@fastify/static', '@fastify/helmet', 'bullmq', 'ioredis', '@aws-sdk/client-s3', 'prom-client'],
})
