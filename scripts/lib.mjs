import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))

/** Runs a command in the repository, shows its output, and returns whether it succeeded. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  return result.status === 0
}

/** Runs a command and ends this program if it fails. */
export function mustRun(command, args, options) {
  if (!run(command, args, options)) process.exit(1)
}

/** Installs the packages if the lock file has changed since the last time. */
export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules', '.installed')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  // Standard output may belong to somebody else.
  mustRun('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: ['ignore', 'ignore', 'inherit'] })
  writeFileSync(mark, lock)
}

/** Debian's packages that tests need, and a program of each. */
const packages = { 'chromium-headless-shell': '/usr/bin/chromium-headless-shell', 'redis-server': '/usr/bin/redis-server' }

/** Installs the packages of Debian that are missing: Chromium without windows, Redis. Goes on while this program is busy. Ends this program if it fails. */
export async function installFromDebian() {
  const missing = Object.keys(packages).filter((name) => !existsSync(packages[name]))
  if (missing.length === 0) return
  console.log(`Installing ${missing.join(', ')} …`)
  const command = `apt-get update -qq && apt-get install -y -qq --no-install-recommends ${missing.join(' ')}`
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  const status = await new Promise((resolve) => spawn('sh', ['-c', command], quiet).on('error', resolve).on('close', resolve))
  if (status !== 0) process.exit(1)
}

/** Builds kernels, application and server. */
export function build() {
  mustRun('npm', ['run', '--silent', 'build'])
}
