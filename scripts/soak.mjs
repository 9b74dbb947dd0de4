// npm run soak: what takes long by its nature, in full; the result is written to docs/soak.md. Some hours.
// npm run soak -- looks browser jobs numbers use sequences storage files kills: only some of it.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build, installFromDebian, installPackages, root } from './lib.mjs'

const parts = {
  looks: {
    what: 'Every starting look, mask and sample scene, and ten mixed stacks, in other tilings, at reduced sizes, with lights in and outside the frame',
    files: [
      'core/src/effects/light.contract.test.ts',
      'core/src/effects/weather.contract.test.ts',
      'core/src/render/controlsCount.contract.test.ts',
      'core/src/render/mixedStacks.contract.test.ts',
      'core/src/render/masks.contract.test.ts',
      'core/src/render/pictures.contract.test.ts',
      'core/src/render/readingCycles.test.ts',
      'core/src/operations/blurs/gaussianBlur/gaussianBlur.test.ts',
      'core/src/operations/sources/turbulence/turbulence.test.ts',
      'core/src/reading/reading.test.ts',
      'core/src/codecs/formats/formats.test.ts',
      'server/src/render.built.test.ts',
    ],
    env: { WELKINAR_EVERY_LOOK: '1' },
  },
  browser: {
    what: 'Every starting look at two scales and phases, in Chromium as in Node',
    config: 'tests/vitest.config.ts',
    files: ['tests/browserAndNode.e2e.ts'],
    env: { WELKINAR_EVERY_LOOK: '1' },
  },
  jobs: {
    what: 'Whole jobs in Chromium from photo to file, every kind added by hand, files of cameras and archives',
    config: 'tests/vitest.config.ts',
    files: [
      'tests/wholeJobs.soak.ts',
      'tests/fogByHand.soak.ts',
      'tests/localWork.soak.ts',
      'tests/photoAndWatch.e2e.ts',
      'tests/light.e2e.ts',
      'tests/weather.e2e.ts',
      'tests/onThePhoto.e2e.ts',
      'tests/hands.e2e.ts',
      'tests/nothingLost.e2e.ts',
      'tests/shelf.e2e.ts',
      'tests/screens.e2e.ts',
      'tests/sizes.e2e.ts',
    ],
    env: { WELKINAR_EVERY_LOOK: '1' },
  },
  machines: {
    what: 'Five hundred photos on two workers, in a folder and in object storage, while workers and Redis are ended',
    files: ['server/src/machines.built.test.ts'],
    env: { WELKINAR_EVERY_LOOK: '1' },
  },
  numbers: {
    what: 'Every operation, ten times with random controls over tones that no photo has: all finite; every look without a line of its own',
    files: ['core/src/render/finite.contract.test.ts', 'core/src/effects/noLines.contract.test.ts'],
    env: { WELKINAR_EVERY_LOOK: '1' },
  },
  use: {
    what: 'Half an hour of use in Chromium: back on the Shelf, it ends within 10 % of the memory that it had there after five minutes',
    config: 'tests/vitest.config.ts',
    files: ['tests/longUse.soak.ts'],
    env: { WELKINAR_EVERY_LOOK: '1', WELKINAR_MINUTES: '30' },
  },
  sequences: {
    what: '20 000 random sequences of commands: parsed, saved and loaded, undone and redone',
    files: ['app/src/scene/commands.test.ts'],
    env: { WELKINAR_SEQUENCES: '20000' },
  },
  storage: {
    what: '20 000 random sequences of what three tabs do to stored scenes, with kills, a full disk, and documents of other builds',
    files: ['app/src/storage/sequences.test.ts'],
    env: { WELKINAR_SEQUENCES: '20000' },
  },
  files: {
    what: '10 000 damaged files, and 65 of forms that another library writes',
    files: ['core/src/codecs/badFiles.test.ts', 'core/src/codecs/forms.test.ts'],
    env: { WELKINAR_BAD_FILES: '10000', WELKINAR_EVERY_LOOK: '1' },
  },
  kills: {
    what: '500 times the browser killed while a scene is changed',
    config: 'tests/vitest.config.ts',
    files: ['tests/failures.e2e.ts'],
    env: { WELKINAR_KILLS: '500', WELKINAR_EVERY_LOOK: '1' },
  },
}
const page = join(root, 'docs', 'soak.md')

/** The rows of the page as it stands, so that a part can be run by itself. */
function rowsBefore() {
  if (!existsSync(page)) return {}
  const rows = readFileSync(page, 'utf8').matchAll(/^\| (\w+) +\|.*$/gm)
  return Object.fromEntries([...rows].map(([row, name]) => [name, row]))
}

function writePage(rows) {
  const head = '# Soak\n\nWritten by `npm run soak`: what is tried as a sample in `npm test`, in full. The last result of each part.\n\n'
  const table = [
    '| part | what | result | minutes | day |',
    '| --- | --- | --- | --- | --- |',
    ...Object.keys(parts).flatMap((name) => rows[name] ?? []),
  ]
  writeFileSync(page, `${head}${table.join('\n')}\n`)
}

const asked = process.argv.slice(2)
const unknown = asked.find((name) => !(name in parts))
if (unknown) {
  console.error(`There is no part “${unknown}”; there are ${Object.keys(parts).join(', ')}.`)
  process.exit(1)
}
installPackages()
await installFromDebian()
build()
const rows = rowsBefore()
let failed = false
for (const name of asked.length ? asked : Object.keys(parts)) {
  const { what, config = 'vitest.config.ts', files, env } = parts[name]
  const started = Date.now()
  const { status } = spawnSync('npx', ['vitest', 'run', '--config', config, ...files], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  })
  failed ||= status !== 0
  const minutes = ((Date.now() - started) / 60_000).toFixed(1)
  rows[name] = `| ${name} | ${what} | ${status === 0 ? 'passed' : 'failed'} | ${minutes} | ${new Date().toISOString().slice(0, 10)} |`
  writePage(rows)
}
spawnSync('npx', ['oxfmt', page], { cwd: root, stdio: 'inherit' })
process.exit(failed ? 1 : 0)
