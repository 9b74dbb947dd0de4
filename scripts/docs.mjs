// npm run docs: writes the tables of controls in docs/formats.md from the schemas (npm test says when they are not fresh), and the pictures of all starting looks and all built-in recipes, docs/looks.jpg and docs/recipes.jpg.
import { installPackages, mustRun } from './lib.mjs'

installPackages()
// Known only once packages are installed.
const { build } = await import('esbuild')
const env = { ...process.env, WELKINAR_WRITE_DOCS: '1' }
mustRun('npx', ['vitest', 'run', '--config', 'vitest.config.ts', 'core/src/model/formats.test.ts'], { env })
mustRun('npx', ['oxfmt', 'docs/formats.md'])
const sheet = 'node_modules/.cache/writeLookSheet.mjs'
await build({
  entryPoints: ['core/test-support/writeLookSheet.ts'],
  outfile: sheet,
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
})
mustRun('node', [sheet])
