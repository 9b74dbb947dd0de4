import { newEffect, noMarks, type Effect } from '@welkinar/core'
import { Resvg } from '@resvg/resvg-js'
import { Evaluator } from '../../core/src/graph/evaluator'
import type { GraphNode } from '../../core/src/graph/node'
import type { Kernels } from '../../core/src/graph/operation'
import { turbulenceNode } from '../../core/src/operations/sources/turbulence/turbulence'
import { gridAt, gridBounds, type Grid } from '../../core/src/planes/grid'
import { splitIntoTiles } from '../../core/src/planes/rect'
import { renderTile } from '../../core/src/render/renderTile'
import { sceneGraph } from '../../core/src/render/sceneGraph'
import { alternate, ratioRow, type Row } from './measure'
import type { BenchPhoto } from './photo24'
import { operations } from '../../core/src/operations/registry'

const TILE = 320
const VIEW_WIDTH = 1280
const CACHE_BYTES = 3e8
const RUNS = 3

/** Turbulence against resvg, and how the time of weather grows. One thread. */
export async function weatherRows({ kernels, photo }: BenchPhoto): Promise<Row[]> {
  const view = gridAt(photo, VIEW_WIDTH / photo.width)
  const draw = (evaluator: Evaluator, node: GraphNode, grid: Grid): void => {
    for (const tile of splitIntoTiles(gridBounds(grid), TILE)) {
      renderTile(evaluator, node, grid, tile)
      evaluator.trim()
    }
  }
  const evaluatorOf = (): Evaluator => {
    const evaluator = new Evaluator({ kernels, operations, store: CACHE_BYTES })
    evaluator.addPhoto(photo)
    return evaluator
  }
  const render = (node: GraphNode, grid: Grid): void => {
    // A fresh cache, so that nothing is left over from the run before.
    const evaluator = evaluatorOf()
    draw(evaluator, node, grid)
    evaluator.dropPhoto(photo.id)
  }
  const rows = [await turbulenceRow(kernels)]
  const marks = { ...noMarks, horizon: { y: 0.45 * photo.height, turn: 0 } }
  const graphOf = (effect: Effect): GraphNode => sceneGraph({ photo, effects: [effect], marks })
  for (const [kind, look, key] of [
    ['rain', 'downpour', 'density'],
    ['snow', 'quiet-snowfall', 'density'],
    ['stars', 'clear-night', 'density'],
    ['dust', 'motes-in-the-light', 'density'],
  ] as const) {
    const dense = (times: number): GraphNode => {
      const effect = newEffect(photo, { kind, look, id: 'one' })
      const pattern = effect.controls.pattern as Record<string, number>
      pattern[key] = (pattern[key] ?? 0) * times
      return graphOf(effect)
    }
    const [sparse, full] = [dense(1), dense(4)]
    const grown = await alternate(
      () => render(full, view),
      () => render(sparse, view),
      RUNS,
    )
    rows.push(ratioRow(`${kind}, ${look}: four times as dense`, grown, 'once as dense', 4))
  }
  for (const [kind, look] of [
    ['snow', 'quiet-snowfall'],
    ['stars', 'clear-night'],
  ] as const) {
    const node = graphOf(newEffect(photo, { kind, look, id: 'one' }))
    const larger = await alternate(
      () => render(node, gridAt(photo, 1)),
      () => render(node, gridAt(photo, 0.5)),
      1,
    )
    rows.push(ratioRow(`${kind}, ${look}: 24 MP`, larger, '6 MP', 4.4))
  }
  return rows
}

/** Four octaves over six megapixels, all four channels, as resvg makes them. */
async function turbulenceRow(kernels: Kernels): Promise<Row> {
  const size = { width: 3000, height: 2000 }
  const params = { type: 'smooth', frequencyX: 0.011, frequencyY: 0.017, octaves: 4, seed: 7, channel: 'red', tile: null } as const
  const grid = gridAt(size, 1)
  const ours = (): void => {
    const evaluator = new Evaluator({ kernels, operations, store: 0 })
    for (const tile of splitIntoTiles(gridBounds(grid), 512)) {
      evaluator.evaluate(turbulenceNode(params), tile, grid)
      evaluator.trim()
    }
  }
  const noise = `<feTurbulence type="fractalNoise" baseFrequency="0.011 0.017" numOctaves="4" seed="7"/>`
  const region = 'x="0" y="0" width="3000" height="2000"'
  const filter = `<filter id="f" filterUnits="userSpaceOnUse" ${region} color-interpolation-filters="sRGB">${noise}</filter>`
  const svg = (inside: string, attribute: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="2000">${inside}<rect width="3000" height="2000" ${attribute}/></svg>`
  const times = await alternate(ours, () => new Resvg(svg(filter, 'filter="url(#f)"')).render(), 3)
  const empty = await alternate(
    () => 0,
    () => new Resvg(svg('', 'fill="#888"')).render(),
    3,
  )
  const remark = `resvg's time for an empty picture of that size, ${Math.round(empty.other)} ms, is taken off`
  return ratioRow('Turbulence, 4 octaves, 6 MP, 1 thread', { ...times, other: times.other - empty.other }, 'resvg', 0.2, remark)
}
