// npm run check: types, linter, and the unit tests of what was changed since the last commit; for while one works.
import { installPackages, run } from './lib.mjs'

installPackages()
const passed = [
  ['tsc', '-p', '.'],
  ['eslint', '.', '--max-warnings=0'],
  ['vitest', 'run', '--config', 'vitest.config.ts', '--changed', '--passWithNoTests', '--reporter=dot'],
].map((command) => run('npx', command))
process.exit(passed.every(Boolean) ? 0 : 1)
