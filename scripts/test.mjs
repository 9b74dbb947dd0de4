// npm test: everything that is checked, from a fresh clone; the last line is the total.
import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, installFromDebian, installPackages, root } from './lib.mjs'

const total = { passed: 0, failed: 0, skipped: 0 }

/** Runs checks beside one another, each on one core, and shows what they say one after the other. */
async function checks(all) {
  const waiting = Object.entries(all)
  const next = async () => {
    for (let one = waiting.shift(); one; one = waiting.shift()) {
      const [name, args] = one
      const { status, said } = await finished(spawn('npx', args, { cwd: root }))
      console.log(`\n— ${name}${status === 0 ? '' : ' failed'}\n${said}`.trimEnd())
      if (status === 0) total.passed++
      else total.failed++
    }
  }
  await Promise.all(Array.from({ length: availableParallelism() }, next))
}

function finished(child) {
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk))
  return new Promise((resolve) => child.on('close', (status) => resolve({ status, said })))
}

/** Runs a Vitest configuration and adds its numbers to the total. */
function tests(name, config) {
  console.log(`\n— ${name}`)
  const folder = mkdtempSync(join(tmpdir(), 'welkinar-tests-'))
  const report = join(folder, 'report.json')
  const args = ['vitest', 'run', '--config', config, '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`]
  const { status } = spawnSync('npx', args, { cwd: root, stdio: 'inherit' })
  try {
    const { numPassedTests, numFailedTests, numPendingTests, numTotalTests } = JSON.parse(readFileSync(report, 'utf8'))
    total.passed += numPassedTests
    total.failed += numFailedTests
    total.skipped += numPendingTests
    // A file that did not load fails without a test.
    if (status !== 0 && numFailedTests === 0) total.failed++
    if (numTotalTests === 0) total.failed++
  } catch {
    console.log(`${name} gave no report`)
    total.failed++
  } finally {
    rmSync(folder, { recursive: true })
  }
}

const debian = installFromDebian()
installPackages()
build()
await checks({
  'Rules of our own, and of hooks': ['eslint', 'app', 'core', '--max-warnings=0'],
  'Types, and the linter': ['oxlint'],
  'Import directions': ['depcruise', '--config', '.dependency-cruiser.cjs', 'kernels', 'core', 'app', 'server', 'demo', 'bench', 'tests'],
  'Dead code': ['knip'],
  Formatting: ['oxfmt', '--check', '.'],
})
await debian
tests('Unit tests', 'vitest.config.ts')
tests('End-to-end tests', 'tests/vitest.config.ts')

const skipped = total.skipped ? `, ${total.skipped} skipped` : ''
console.log(`\n${total.passed} passed, ${total.failed} failed${skipped}`)
process.exit(total.failed === 0 ? 0 : 1)
