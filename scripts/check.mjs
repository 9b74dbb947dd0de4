// npm run check: types, and linter and unit tests of what was changed since the last commit; for while one works.
import { execFileSync, spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { installPackages, mustRun, root } from './lib.mjs'

installPackages()
const listed = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean)
const changed = [...listed('diff', '--name-only', 'HEAD'), ...listed('ls-files', '--others', '--exclude-standard')].filter((name) =>
  existsSync(join(root, name)),
)
// Everything else reads their types and their module.
if (changed.some((name) => name.startsWith('kernels/')) || !existsSync(join(root, 'kernels', 'build', 'kernels.wasm')))
  mustRun('npm', ['run', '--silent', 'build', '-w', 'kernels'])
const linted = changed.filter((name) => /\.(ts|tsx|mjs|cjs)$/.test(name))
// Not what draws every look, mask and stack (*.contract.test.ts), and what runs the built server and command line (*.built.test.ts): that is for `npm test`.
const quick = ['**/*.contract.test.ts', '**/*.built.test.ts', '**/node_modules/**'].flatMap((name) => ['--exclude', name])
const commands = [
  ['oxlint'],
  ['oxfmt', '--check', '.'],
  ...(linted.length ? [['eslint', '--max-warnings=0', '--no-warn-ignored', ...linted]] : []),
  ['vitest', 'run', '--config', 'vitest.config.ts', '--changed', '--passWithNoTests', '--reporter=dot', ...quick],
]
const passed = await Promise.all(
  commands.map(
    (args) => new Promise((resolve) => spawn('npx', args, { cwd: root, stdio: 'inherit' }).on('close', (status) => resolve(status === 0))),
  ),
)
process.exit(passed.every(Boolean) ? 0 : 1)
