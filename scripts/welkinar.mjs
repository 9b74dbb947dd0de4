// npm run welkinar, npm run render: the command line, built anew if anything that it is made of has changed.
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { spawnSync } from 'node:child_process'
import { installPackages, mustRun, root } from './lib.mjs'

installPackages()
const program = join(root, 'server/dist/welkinar.js')
const sources = ['kernels/assembly', 'core/src', 'server/src', 'server/build.mjs', 'package-lock.json'].map((name) => join(root, name))
if (!existsSync(program) || !existsSync(join(root, 'kernels/build/kernels.wasm')) || newest(sources) > statSync(program).mtimeMs) {
  // Standard output belongs to the command line.
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'] }
  mustRun('npm', ['run', '--silent', 'build', '-w', 'kernels'], quiet)
  mustRun('npm', ['run', '--silent', 'build', '-w', 'server'], quiet)
}
// Paths count from where the command was given.
const { status } = spawnSync('node', [program, ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  stdio: 'inherit',
})
process.exit(status ?? 1)

/** When any of some files and folders was changed last. */
function newest(paths) {
  return Math.max(
    ...paths.map((path) => {
      const { mtimeMs } = statSync(path)
      return statSync(path).isDirectory() ? newest(readdirSync(path).map((name) => join(path, name))) : mtimeMs
    }),
  )
}
