import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { gridAt, gridBounds, newEffect, sceneGraph } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { afterAll, describe, expect, it } from 'vitest'
import { createNodePool } from './nodePool'

const built = new URL('../dist/worker.js', import.meta.url)
const size = { width: 600, height: 400 }
const folder = mkdtempSync(join(tmpdir(), 'welkinar-threads-'))

/** The thread as it is built, whose first one does something to itself in the middle of what it computes for all. */
function spoiled(name: string, deed: string): URL {
  const [script, mark] = [join(folder, `${name}.mjs`), join(folder, name)]
  const lines = [
    "import { existsSync, writeFileSync } from 'node:fs'",
    'const { add } = Atomics',
    'let signs = 0',
    // A thread gives a sign of life before each operation.
    'Atomics.add = (...args) => {',
    `  if (++signs === 12 && !existsSync(${JSON.stringify(mark)})) { writeFileSync(${JSON.stringify(mark)}, ''); ${deed} }`,
    '  return add(...args)',
    '}',
    `await import(${JSON.stringify(built.href)})`,
  ]
  writeFileSync(script, lines.join('\n'))
  return pathToFileURL(script)
}

async function drawn(pool: RenderPool): Promise<Uint8ClampedArray> {
  const pixels = new Uint8Array(size.width * size.height * 4).map((_, i) => (i * 7) % 200)
  await pool.addPhoto({ id: 'p', ...size, levels: [{ ...size, format: 'rgba8', pixels: pixels.buffer }] })
  const effects = [newEffect(size, { kind: 'fog', id: 'a' }), newEffect(size, { kind: 'rain', id: 'b' })]
  const node = sceneGraph({ photo: { id: 'p', ...size }, effects })
  const grid = gridAt(size, 1)
  try {
    return await pool.renderPixels({ node, grid, rect: gridBounds(grid), tileSize: 128, priority: priorities.view })
  } finally {
    pool.dispose()
  }
}

describe('real threads of the pool', () => {
  afterAll(() => rmSync(folder, { recursive: true }))

  it.each([
    ['ends', 'process.exit(3)'],
    ['is stuck for ever', 'for (;;);'],
    ['has no memory left', 'throw new RangeError("Invalid array buffer length")'],
  ])('one that %s while it draws is replaced, and every pixel is right', async (name, deed) => {
    const expected = await drawn(await createNodePool(2, { script: built }))
    const found = await drawn(await createNodePool(2, { script: spoiled(name, deed), stallSeconds: 3 }))
    expect(Buffer.compare(Buffer.from(found), Buffer.from(expected))).toBe(0)
  })
})
