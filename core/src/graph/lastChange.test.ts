import { expect, it } from 'vitest'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { constantFieldNode } from '../operations/sources/constantField/constantField'
import { mixNode } from '../operations/mixing/mix/mix'
import { LastChange } from './lastChange'
import { graphNode, type GraphNode } from './node'

/** Nodes that each read the one before twice, as a halo reads what it is laid over: 2 to the power of `deep` ways lead to the first. */
function halos(first: GraphNode, deep: number): GraphNode {
  let node = first
  for (let i = 0; i < deep; i++) node = graphNode('joinFields', { mode: 'screen', step: i }, [node, node])
  return node
}

it('what changed is found in one walk, however many ways lead through the graph', () => {
  const change = new LastChange()
  const stage = graphNode('mix', { a: 1 }, [constantTonesNode([0, 0, 0])])
  const beneath = halos(stage, 60)
  change.look(graphNode('levels', { white: 1 }, [beneath]))
  // A dial above all of that: without a set of what was seen this walk would not end.
  change.look(graphNode('levels', { white: 0.9 }, [beneath]))
  expect(change.isBeneath(stage)).toBe(true)
})

it('a correction that changes nothing is the picture beneath it, not a picture of its own', () => {
  const base = constantTonesNode([0.2, 0.3, 0.4])
  const params = { mode: 'normal', amount: 1, linear: false, colour: [1, 1, 1] } as const
  expect(mixNode(base, constantFieldNode(1), undefined, params, base)).toBe(base)
  const changed = constantTonesNode([0.2, 0.3, 0.5])
  expect(mixNode(base, constantFieldNode(1), undefined, params, changed)).toMatchObject({ isStage: true })
})
