import { beforeAll, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, randomNumbers, samplePixels } from '../../test-support/pictures'
import { everything } from '../../test-support/sampled'
import { randomEffect, randomValue, type Places } from '../../test-support/randomValue'
import { effectDefinitions } from '../effects/registry'
import type { Evaluator } from '../graph/evaluator'
import { graphNode, type GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import { newMask } from '../masks/newMask'
import { maskDefinitions, maskSchema, type Mask } from '../masks/registry'
import { noMarks } from '../model/marks'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { gridAt, gridBounds } from '../planes/grid'
import { sceneGraph } from './sceneGraph'

// Whatever a document may say, no operation gives what is no number: such a value spreads with every blur, and comes out black or white.

const size = { width: 80, height: 56 }
const TRIES = everything ? 10 : 1

let kernels: Kernels
let evaluator: Evaluator
beforeAll(async () => {
  kernels = await loadKernels()
  evaluator = evaluatorFor(kernels, photoFrom(kernels, 'photo', size.width, size.height, samplePixels(size.width, size.height)))
})

/** Tones as no photo has them: beneath zero, far beyond white, and 0 and 1 themselves. */
const odd = [
  [0, 1, -0.4],
  [1000, 0, 1],
  [-0.4, -0.4, -0.4],
  [1000, 1000, 1000],
] as const

/** A graph that reads such tones in the place of its photo. */
function overOddTones(node: GraphNode, tones: GraphNode, made = new Map<string, GraphNode>()): GraphNode {
  const known = made.get(node.key)
  if (known) return known
  const found =
    node.operation === 'photo'
      ? tones
      : graphNode(
          node.operation,
          node.params,
          node.inputs.map((input) => overOddTones(input, tones, made)),
        )
  made.set(node.key, found)
  return found
}

function nodesOf(root: GraphNode): GraphNode[] {
  const found = new Map<string, GraphNode>()
  const visit = (node: GraphNode): void => {
    if (found.has(node.key)) return
    node.inputs.forEach(visit)
    found.set(node.key, node)
  }
  visit(root)
  return [...found.values()]
}

/** The first operation of a graph whose result holds what is no number; undefined if there is none. */
function firstNotFinite(root: GraphNode, scale: number): string | undefined {
  const grid = gridAt(size, scale)
  const rect = gridBounds(grid)
  for (const node of nodesOf(root)) {
    const { planes, rect: at } = evaluator.evaluate(node, rect, grid)
    const isFinite = planes.every((plane) => new Float32Array(kernels.memory.buffer, plane, at.width * at.height).every(Number.isFinite))
    evaluator.trim()
    if (!isFinite) return `${node.operation} ${JSON.stringify(node.params)} at ${scale}`
  }
  return undefined
}

const places: readonly Places[] = ['anywhere', 'limits', 'usual ends']

it.each(effectDefinitions.map(({ kind }, k) => [kind, k] as const))(
  '%s gives numbers only, whatever its controls, over whatever tones',
  (kind, k) => {
    const random = randomNumbers(kind.length * 7919 + kind.charCodeAt(0))
    for (let i = 0; i < TRIES; i++) {
      const effect = randomEffect(size, kind, random, places[(i + k) % places.length]!)
      const graph = sceneGraph({ photo: { id: 'photo', ...size }, effects: [effect] })
      for (const colour of [undefined, odd[(i + k) % odd.length]!]) {
        const root = colour ? overOddTones(graph, constantTonesNode(colour)) : graph
        for (const scale of [1, 0.25]) expect(firstNotFinite(root, scale), JSON.stringify(effect.controls)).toBeUndefined()
      }
    }
  },
)

it.each(maskDefinitions.map(({ kind }, k) => [kind, k] as const))('a mask of kind %s gives numbers only', (kind, k) => {
  const random = randomNumbers(kind.length * 104729 + kind.charCodeAt(1))
  for (let i = 0; i < TRIES; i++) {
    const start = newMask(size, { kind, id: 'm', join: 'keep', marks: noMarks })
    const mask = randomValue(maskSchema, start, random, places[(i + k) % places.length]!) as Mask
    const effect = { ...randomEffect(size, 'glaze', random, 'usual ends', 0), where: { masks: [mask], hold: 30 } }
    const graph = sceneGraph({ photo: { id: 'photo', ...size }, effects: [effect] })
    for (const root of [graph, overOddTones(graph, constantTonesNode(odd[(i + k) % odd.length]!))])
      expect(firstNotFinite(root, 1), JSON.stringify(mask)).toBeUndefined()
  }
})
