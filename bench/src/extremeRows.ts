import { effectDefinitions, newEffect, noMarks, sceneGraph, type Effect } from '@welkinar/core'
import { checkCost, costOf, TooCostly } from '../../core/src/render/cost'
import { Evaluator } from '../../core/src/graph/evaluator'
import type { GraphNode } from '../../core/src/graph/node'
import { costPerPixel } from '../../core/src/operations/costs'
import { Planner } from '../../core/src/graph/plan'
import { gridAt, gridBounds, type Grid, type Size } from '../../core/src/planes/grid'
import { splitIntoTiles, type Rect } from '../../core/src/planes/rect'
import { randomNumbers } from '../../core/test-support/pictures'
import { randomEffect, type Places } from '../../core/test-support/randomValue'
import type { Row } from './measure'
import type { BenchPhoto } from './photo24'
import { operations } from '../../core/src/operations/registry'

const MOST_TILE_MS = 5000
const MOST_REFUSAL_MS = 1000
const MOST_FILE_MS = 120_000
/** Settings of each kind that are looked through, and how many of the most costly are measured. */
const [SEARCHED, MEASURED] = [150, 3]
const MIDDLE: Rect = { x: 2560, y: 1536, width: 512, height: 512 }
/** What runs for less than this in all is not compared. */
const LEAST_MS = 5
const WITHIN = 2
const MOST_OFF = 0.1

const places: readonly Places[] = ['limits', 'anywhere', 'usual ends']

/** Chains that are each allowed, as long as the schema allows them. */
const chains: readonly (readonly [what: string, step: object])[] = [
  ['24 disc maxima of 400 px', { kind: 'maximum', radius: 400 }],
  ['24 motions of 6000 px', { kind: 'motion', length: 6000, angle: 37 }],
  ['24 zooms of 6000 px', { kind: 'zoom', strength: 6000 }],
  ['24 spins of 360°', { kind: 'spin', arc: 360 }],
  ['24 blurs of 6000 px', { kind: 'blur', radius: 6000 }],
]

/** The settings of highest stated cost that are found at random, each kind by itself: measured, or refused at once; and how well stated and measured cost agree. */
export function extremeRows({ photo, kernels }: BenchPhoto): Row[] {
  const evaluator = new Evaluator({ kernels, operations, store: 768e6 })
  const planner = new Planner(operations, kernels)
  const grid = gridAt(photo, 1)
  const compared = new Compared(evaluator)
  const rows: Row[] = []
  const graphOf = (effects: readonly Effect[]): GraphNode =>
    sceneGraph({ photo, effects, marks: { ...noMarks, horizon: { y: 0.45 * photo.height, turn: 0 } } })
  const measure = (what: string, effects: readonly Effect[]): void => {
    const node = graphOf(effects)
    const began = performance.now()
    let refused = ''
    try {
      checkCost(node, photo, planner)
      evaluator.addPhoto(photo)
      evaluator.evaluate(node, MIDDLE, grid, 'nothing')
    } catch (error) {
      if (!(error instanceof TooCostly)) throw error
      refused = error.message
    }
    const ours = performance.now() - began
    dropAll(evaluator, photo.id)
    // Once more in memory that was used before: which of a run's memory is new depends on what ran before it.
    if (!refused) compared.watch(() => evaluator.evaluate(node, MIDDLE, grid, 'nothing'), photo)
    dropAll(evaluator, photo.id)
    const most = refused ? MOST_REFUSAL_MS : MOST_TILE_MS
    const work = `${what}: ${refused ? 'refused' : 'a tile in the middle of 24 MP, one thread'}`
    rows.push({ work, ours, reach: `≤ ${most / 1000} s`, within: ours <= most, ...(refused && { remark: refused }) })
  }
  const allowed: { readonly label: string; readonly effect: Effect; readonly seconds: number }[] = []
  for (const { kind, label } of effectDefinitions) {
    const random = randomNumbers(kind.length * 31 + kind.charCodeAt(0))
    const found = Array.from({ length: SEARCHED }, (_, i) => {
      const effect = randomEffect(photo, kind, random, places[i % places.length] ?? 'limits', i % 4 < 2 ? 1 : 0.3)
      return { effect, seconds: costOf(sceneGraph({ photo, effects: [effect], marks: noMarks }), photo, planner).seconds }
    })
    const costliest = found.toSorted((a, b) => b.seconds - a.seconds).slice(0, MEASURED)
    costliest.forEach(({ effect, seconds }, i) =>
      measure(`${label}, ${i + 1}. of ${SEARCHED} settings (stated ${seconds.toFixed(0)} s a file)`, [effect]),
    )
    allowed.push(
      ...found
        .filter(({ effect }) => !isRefused(graphOf([effect]), photo, planner))
        .map(({ effect, seconds }) => ({ label, effect, seconds })),
    )
  }
  for (const [what, step] of chains) {
    const effect = newEffect(photo, { kind: 'customField', id: 'c' })
    Object.assign(effect.controls.shape, { steps: Array.from({ length: 24 }, () => step) })
    measure(what, [effect])
  }
  for (const { label, effect, seconds } of allowed.toSorted((a, b) => b.seconds - a.seconds).slice(0, MEASURED)) {
    const node = graphOf([effect])
    evaluator.addPhoto(photo)
    const began = performance.now()
    for (const tile of splitIntoTiles(gridBounds(grid), MIDDLE.width)) {
      evaluator.evaluate(node, tile, grid, 'nothing')
      evaluator.trim()
    }
    const ours = performance.now() - began
    dropAll(evaluator, photo.id)
    const work = `${label}, of the most costly that are allowed: all of 24 MP, one thread (stated ${seconds.toFixed(0)} s)`
    rows.push({ work, ours, reach: `≤ ${MOST_FILE_MS / 1000} s`, within: ours <= MOST_FILE_MS })
  }
  return [...rows, compared.row()]
}

function isRefused(node: GraphNode, photo: Size, planner: Planner): boolean {
  try {
    checkCost(node, photo, planner)
    return false
  } catch (error) {
    if (error instanceof TooCostly) return true
    throw error
  }
}

function dropAll(evaluator: Evaluator, photo: string): void {
  evaluator.trim()
  evaluator.dropPhoto(photo)
}

/** Stated against measured cost, operation by operation. */
class Compared {
  private running: { readonly operation: string; readonly stated: number; readonly began: number } | undefined
  private readonly seen = new Map<string, { stated: number; measured: number }>()

  constructor(private readonly evaluator: Evaluator) {}

  /** Compares the operations that run. */
  watch(run: () => void, photo: BenchPhoto['photo']): void {
    this.evaluator.addPhoto(photo)
    this.evaluator.onRun = (node: GraphNode, rect: Rect, grid: Grid) => {
      this.end()
      const stated = costPerPixel(node, rect, grid) * rect.width * rect.height * 1e-6
      this.running = { operation: node.operation, stated, began: performance.now() }
    }
    run()
    this.end()
    this.evaluator.onRun = undefined
  }

  private end(): void {
    if (!this.running) return
    const { operation, stated, began } = this.running
    const measured = performance.now() - began
    this.running = undefined
    const before = this.seen.get(operation) ?? { stated: 0, measured: 0 }
    this.seen.set(operation, { stated: before.stated + stated, measured: before.measured + measured })
  }

  row(): Row {
    const ratios = [...this.seen]
      .filter(([, { measured }]) => measured >= LEAST_MS)
      .map(([operation, { stated, measured }]) => ({ operation, ratio: stated / measured }))
    const off = ratios.filter(({ ratio }) => ratio > WITHIN || ratio < 1 / WITHIN)
    const part = off.length / ratios.length
    const named = off.map(({ operation, ratio }) => `${operation} ${ratio.toFixed(2)}`).join(', ')
    return {
      work: `Operations whose stated cost is not within a factor of ${WITHIN} of the measured: ${off.length} of ${ratios.length}`,
      ours: 0,
      reach: `≤ ${MOST_OFF * 100} %`,
      within: part <= MOST_OFF,
      ...(named && { remark: `stated by measured: ${named}` }),
    }
  }
}
