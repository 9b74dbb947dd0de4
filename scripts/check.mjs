// npm run check: types, and linter and unit tests of what was changed since the last commit; for while one works.
import { execFileSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { installPackages, root, run } from './lib.mjs'

installPackages()
const listed = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean)
const changed = [...listed('diff', '--name-only', 'HEAD'), ...listed('ls-files', '--others', '--exclude-standard')].filter((name) =>
  existsSync(join(root, name)),
)
const linted = changed.filter((name) => /\.(ts|tsx|mjs|cjs)$/.test(name))
const commands = [
  ['tsc', '-p', '.'],
  ...(changed.length ? [['prettier', '--check', '--log-level=warn', '--ignore-unknown', ...changed]] : []),
  ...(linted.length ? [['eslint', '--max-warnings=0', '--no-warn-ignored', ...linted]] : []),
  ['vitest', 'run', '--config', 'vitest.config.ts', '--changed', '--passWithNoTests', '--reporter=dot'],
]
const passed = commands.map((command) => run('npx', command))
process.exit(passed.every(Boolean) ? 0 : 1)
