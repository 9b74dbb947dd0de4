// Bundles the benchmarks and the jobs that are done with sharp.
import { build } from 'esbuild'

await build({
  entryPoints: ['src/main.ts', 'src/sharpRain.ts', 'src/sharpSoftFocus.ts', 'src/sharpFinish.ts', 'src/sharpMany.ts'],
  outdir: 'dist',
  bundle: true,
  external: ['sharp', 'playwright-core', '@resvg/resvg-js', '@techstark/opencv-js', 'utif2', 'libheif-js'],
  alias: {
    '@welkinar/core/recipes': '../core/src/recipes/index.ts',
    '@welkinar/core/pool': '../core/src/pool/index.ts',
    '@welkinar/core': '../core/src/index.ts',
  },
  platform: 'node',
  format: 'esm',
  target: 'node20',
})
