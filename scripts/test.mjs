// npm test: everything that is checked, from a fresh clone; the last line is the total.
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, installChromium, installPackages, root, run } from './lib.mjs'

const total = { passed: 0, failed: 0, skipped: 0 }

function check(name, command, args) {
  console.log(`\n— ${name}`)
  if (run(command, args)) total.passed++
  else {
    total.failed++
    console.log(`${name} failed`)
  }
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

installPackages()
installChromium()
build()
check('Formatting', 'npx', ['prettier', '--check', '--log-level=warn', '.'])
check('Linter', 'npx', ['eslint', '.', '--max-warnings=0'])
check('Types', 'npx', ['tsc', '-p', '.'])
check('Import directions', 'npx', [
  'depcruise',
  '--config',
  '.dependency-cruiser.cjs',
  'kernels',
  'core',
  'app',
  'server',
  'demo',
  'bench',
  'tests',
])
check('Dead code', 'npx', ['knip'])
tests('Unit tests', 'vitest.config.ts')
tests('End-to-end tests', 'tests/vitest.config.ts')

const skipped = total.skipped ? `, ${total.skipped} skipped` : ''
console.log(`\n${total.passed} passed, ${total.failed} failed${skipped}`)
process.exit(total.failed === 0 ? 0 : 1)
