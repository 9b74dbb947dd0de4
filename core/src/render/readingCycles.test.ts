import { describe, expect, it } from 'vitest'
import { documentVersion } from '../model/version'
import { chainedPinnedStates, effectOf, photo, reading, regionsReadingOneAnother, size } from '../../test-support/chains'
import { everything } from '../../test-support/sampled'
import { effectDefinitions, type Effect } from '../effects/registry'
import type { GraphNode } from '../graph/node'
import { newMask } from '../masks/newMask'
import { noMarks } from '../model/marks'
import { parseRecipe, stackFor } from '../model/recipe'
import { constantFieldNode } from '../operations/sources/constantField/constantField'
import type { PictureSource } from './pictureSource'
import { sceneGraph, stepNames } from './sceneGraph'

/** A custom field that is made from the pattern of another effect. */
function customOf(id: string, of: string): Effect {
  const made = effectOf('customField', id)
  Object.assign(made.controls.pattern, { source: 'effect', of })
  return made
}

function nodesOf(root: GraphNode): Map<string, GraphNode> {
  const found = new Map<string, GraphNode>()
  const visit = (node: GraphNode): void => {
    if (found.has(node.key)) return
    found.set(node.key, node)
    node.inputs.forEach(visit)
  }
  visit(root)
  return found
}

// A region and what lies beneath may lead back to the effect that reads them. Then it is taken as nothing; no chain goes on for ever.
describe('effects that read themselves', () => {
  it.each([
    ['its own pattern in its region', [{ ...effectOf('subjectGlow', 'a'), region: reading('a') }]],
    ['its own tones in its region', [{ ...effectOf('subjectGlow', 'a'), region: reading('itself') }]],
    ['its own tones in the pool that it lights', [{ ...effectOf('lightPool', 'a'), region: reading('itself') }]],
    [
      'each other in their regions',
      [
        { ...effectOf('subjectGlow', 'a'), region: reading('b') },
        { ...effectOf('lightPool', 'b'), region: reading('a') },
      ],
    ],
    ['each other as custom fields', [customOf('a', 'b'), customOf('b', 'a')]],
    ['what lies beneath, where a mask reads the one above', [{ ...effectOf('rain', 'a'), where: reading('b') }, protecting('b')]],
  ] as [string, Effect[]][])('by %s have a graph, the same whatever is asked for first', (_, effects) => {
    const looks = [
      ...effects.flatMap(({ id }) => stepNames.map((step) => ({ kind: 'step', effectId: id, step }) as const)),
      ...effects.map(({ id }) => ({ kind: 'alone', effectId: id }) as const),
    ]
    const result = sceneGraph({ photo, effects }).key
    for (const look of looks) {
      const source: PictureSource = Object.freeze({ photo, effects })
      const asked = sceneGraph(source, look).key
      expect(sceneGraph(source).key).toBe(result)
      expect(sceneGraph({ photo, effects }, look).key).toBe(asked)
    }
  })

  it('are nothing where they read themselves', () => {
    const effects = [customOf('a', 'b'), customOf('b', 'a')]
    // The raw pattern of the first is the field of the second, which was made from nothing.
    const nodes = nodesOf(sceneGraph({ photo, effects }, { kind: 'step', effectId: 'b', step: 'pattern' }))
    expect(nodes.has(constantFieldNode(0).key)).toBe(true)
  })
})

function protecting(id: string): Effect {
  const made = effectOf('softFocus', id)
  if (made.kind === 'softFocus') made.controls.shape.protectHighlights = 50
  return made
}

describe('a graph is built once', () => {
  it('twelve regions that read one another: nodes by the number of masks', () => {
    const counts = [6, 12].map((count) => nodesOf(sceneGraph(regionsReadingOneAnother(count))).size)
    // Each of n regions has n - 1 masks: their joins and the glow about them.
    expect(counts[1]).toBeLessThan(2 * 12 * 12 + 40 * 12)
    expect(counts[1]! / counts[0]!).toBeLessThan(4)
  })

  it('ten pinned states that read one another: nodes by their number', () => {
    const counts = [5, 10].map((count) => nodesOf(sceneGraph(chainedPinnedStates(count))).size)
    expect(counts[1]! / counts[0]!).toBeLessThan(2.2)
    expect(counts[1]).toBeLessThan(1500)
  })

  it('the largest recipe that is allowed, 200 effects with 32 masks each: nodes by the number of masks', () => {
    const recipe = (count: number, masks: number): string => {
      const list = Array.from({ length: masks }, (_, k) => newMask(size, { kind: 'ellipse', id: `m${k}`, join: 'add', marks: noMarks }))
      const kinds = effectDefinitions.map(({ kind }) => kind)
      const effects = Array.from({ length: count }, (_, i) => ({
        ...effectOf(kinds[i % kinds.length]!, `e${i}`),
        where: { masks: list, hold: 100 },
      }))
      return JSON.stringify({
        format: 'welkinar-recipe',
        ...documentVersion,
        name: 'All',
        madeFor: size,
        groups: [],
        pinned: [],
        effects,
      })
    }
    // As large as it may be in the soak.
    const counts = (everything ? [50, 200] : [20, 80]).map(
      (count) => nodesOf(sceneGraph({ photo, ...stackFor(parseRecipe(recipe(count, everything ? 32 : 8), 'all.json'), photo) })).size,
    )
    expect(counts[1]! / counts[0]!).toBeLessThan(4.2)
    expect(() => parseRecipe(recipe(201, 1), 'all.json')).toThrow(/“all.json” is not a valid recipe: at effects, /)
    expect(() => parseRecipe(recipe(1, 33), 'all.json')).toThrow(/“all.json” is not a valid recipe: at effects.0.where.masks, /)
  })

  it('a change of the top effect makes only its own nodes anew', () => {
    const effects = Array.from({ length: 20 }, (_, i) => Object.freeze(effectOf('fog', `e${i}`)))
    const before = nodesOf(sceneGraph(Object.freeze({ photo, effects, marks: noMarks })))
    const top = Object.freeze({ ...effects[19]!, mix: { ...effects[19]!.mix, amount: 41 } }) as Effect
    const after = sceneGraph(Object.freeze({ photo, effects: [...effects.slice(0, 19), top], marks: noMarks }))
    const made = [...nodesOf(after)].filter(([key]) => !before.has(key))
    expect(made.map(([, { operation }]) => operation)).toEqual(['mix'])
    // What did not change is not only equal: it is the same.
    const kept = [...nodesOf(after)].filter(([key, node]) => before.get(key) === node)
    expect(kept.length).toBeGreaterThan(0.7 * before.size)
  })
})
