// Bundles the generator of the sample photos and its worker thread.
import { build } from 'esbuild'

await build({
  entryPoints: ['src/main.ts', 'src/expose.ts'],
  outdir: 'dist',
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
})
