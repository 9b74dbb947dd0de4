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

/** Installs Debian's Chromium without windows if it is missing; other things may be done meanwhile. Ends this program if it fails. */
export async function installChromium() {
  if (existsSync('/usr/bin/chromium-headless-shell')) return
  console.log('Installing chromium-headless-shell …')
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  for (const args of [
    ['update', '-qq'],
    ['install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'],
  ]) {
    const status = await new Promise((resolve) => spawn('apt-get', args, quiet).on('error', resolve).on('close', resolve))
    if (status !== 0) process.exit(1)
  }
}

/** Builds kernels, application and server. */
export function build() {
  mustRun('npm', ['run', '--silent', 'build'])
}
