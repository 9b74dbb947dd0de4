import { operationNamed } from '../operations/registry'
import type { GraphNode } from './node'

/** Nodes that are remembered at most, besides those of the last graph. */
const MOST_NODES = 10_000

/** Whether a node is the picture up to an effect. */
export function isStage(node: GraphNode): boolean {
  return (node.isStage ?? operationNamed(node.operation).isStage) === true
}

/** Where graphs that come one after another begin to differ: the next one will most likely differ there again, since a dial is moved more than once. */
export class LastChange {
  private seen = new Set<string>()
  private last: string | undefined
  private beneath: ReadonlySet<string> = new Set()

  /** Whether a picture lies just beneath what changed last: with it at hand, nothing under the change is computed anew. */
  isBeneath(node: GraphNode): boolean {
    return this.beneath.has(node.key)
  }

  /** Compares a graph with those before. One that holds nothing new changes nothing. */
  look(root: GraphNode): void {
    if (root.key === this.last) return
    this.last = root.key
    if (this.seen.has(root.key)) return
    const beneath = new Set<string>()
    const fresh = new Set<string>()
    const known = new Set<string>()
    const visitKnown = (node: GraphNode): void => {
      // Halos read halos: without this each is gone through as often as there are ways to it.
      if (known.has(node.key)) return
      known.add(node.key)
      if (isStage(node)) beneath.add(node.key)
      else node.inputs.forEach(visitKnown)
    }
    const visit = (node: GraphNode): void => {
      if (fresh.has(node.key)) return
      if (this.seen.has(node.key)) return visitKnown(node)
      fresh.add(node.key)
      node.inputs.forEach(visit)
    }
    visit(root)
    if (this.seen.size > MOST_NODES) this.seen = new Set()
    fresh.forEach((key) => this.seen.add(key))
    this.beneath = beneath
  }
}
