// npm run render: builds the command line if it is not there, and runs it.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { installPackages, mustRun, root, run } from './lib.mjs'

installPackages()
const built = ['kernels/build/kernels.wasm', 'server/dist/render.js'].every((file) => existsSync(join(root, file)))
if (!built) {
  // Standard output belongs to the command line.
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'] }
  mustRun('npm', ['run', '--silent', 'build', '-w', 'kernels'], quiet)
  mustRun('npm', ['run', '--silent', 'build', '-w', 'server'], quiet)
}
// Paths count from where the command was given.
process.exit(
  run('node', [join(root, 'server/dist/render.js'), ...process.argv.slice(2)], { cwd: process.env.INIT_CWD ?? process.cwd() }) ? 0 : 1,
)
