import { definitionOf, effectDefinitions, gridAt, gridBounds, newEffect, noMarks, sceneGraph, type Effect } from '@welkinar/core'
import { priorities } from '@welkinar/core/pool'
import { createNodePool } from '../../server/src/nodePool'
import { alternate, type Row } from './measure'
import type { BenchPhoto } from './photo24'

const TILE = 320
const VIEW_WIDTH = 1280
const WEATHER_MS = 150
const LIGHT_MS = 200
const RUNS = 5

/** Each starting look of each kind (or of `kinds`) in the fitted view of 24 MP, as exactly as it gets, after a change to its pattern: the application's own pool. */
export async function effectRows({ photo }: BenchPhoto, kinds?: readonly string[]): Promise<Row[]> {
  const pool = await createNodePool(2, { script: new URL('../../server/dist/worker.js', import.meta.url) })
  await pool.addPhoto(photo)
  const marks = { ...noMarks, horizon: { y: 0.45 * photo.height, turn: 0 } }
  const grid = gridAt(photo, VIEW_WIDTH / photo.width)
  const rows: Row[] = []
  for (const { kind, family, label, madeFromEffect, startingLooks } of effectDefinitions) {
    if (madeFromEffect || (kinds && !kinds.includes(kind))) continue
    for (const { id, name } of startingLooks) {
      let changes = 0
      const draw = (): Promise<unknown> => {
        const node = sceneGraph({ photo, effects: [changed(newEffect(photo, { kind, look: id, id: 'one' }), changes++)], marks })
        return pool.renderPixels({ node, grid, rect: gridBounds(grid), tileSize: TILE, priority: priorities.view })
      }
      const { ours } = await alternate(draw, () => 0, RUNS)
      const reach = family === 'weather' ? WEATHER_MS : LIGHT_MS
      rows.push({
        work: `${label}: ${name}, 24 MP in a view of 1280 px, exact after a change`,
        ours,
        reach: `≤ ${reach} ms`,
        within: ours <= reach,
      })
    }
  }
  pool.dispose()
  return rows
}

/** An effect that was changed a little: what lies beneath is known by then, as in the application. */
function changed(effect: Effect, times: number): Effect {
  const pattern = effect.controls.pattern as Record<string, unknown>
  const { applies } = definitionOf(effect.kind)
  if (typeof pattern['seed'] === 'number' && (applies?.('pattern.seed', effect.controls) ?? true)) {
    pattern['seed'] += times
    return effect
  }
  const [step = '', key = ''] = (definitionOf(effect.kind).dials[0] ?? '').split('.')
  const numbers = (effect.controls as unknown as Record<string, Record<string, number>>)[step]
  if (numbers) numbers[key] = (numbers[key] ?? 0) * (1 - 0.01 * times)
  return effect
}
