import type { GraphNode } from '../graph/node'

/** A node as it crosses to a thread: its inputs by their keys. */
interface SentNode extends Omit<GraphNode, 'inputs'> {
  readonly inputs: readonly string[]
}

/** A graph as it crosses to a thread: only the nodes that the thread does not know yet, inputs before those that read them. */
export interface SentGraph {
  readonly root: string
  readonly nodes: readonly SentNode[]
  /** Whether the thread forgets all nodes before these. */
  readonly forget: boolean
}

/** Nodes that a thread remembers besides those of the open scene: of its last changes. */
const MOST_NODES = 10_000

/** What one thread knows, as the other side keeps count of it. */
export class KnownNodes {
  private readonly keys: string[] = []
  private readonly known = new Set<string>()
  /** Nodes of the first graph since all were forgotten. */
  private first = 0

  /** The graph with the nodes that have not been sent; they count as sent from now on. */
  send(root: GraphNode): SentGraph {
    const forget = this.known.size > MOST_NODES + 2 * this.first
    if (forget) {
      this.known.clear()
      this.keys.length = 0
    }
    const nodes: SentNode[] = []
    const visit = (node: GraphNode): void => {
      if (this.known.has(node.key)) return
      this.known.add(node.key)
      node.inputs.forEach(visit)
      this.keys.push(node.key)
      nodes.push({ ...node, inputs: node.inputs.map((input) => input.key) })
    }
    visit(root)
    if (nodes.length === this.known.size) this.first = nodes.length
    return { root: root.key, nodes, forget }
  }

  /** Key of a node by when it was sent; undefined if none was. */
  keyAt(index: number): string | undefined {
    return this.keys[index]
  }
}

/** The nodes that a thread has received. */
export class ReceivedNodes {
  private readonly nodes = new Map<string, { readonly node: GraphNode; readonly index: number }>()

  /** @throws Error if a node refers to one that was never sent */
  receive({ root, nodes, forget }: SentGraph): GraphNode {
    if (forget) this.nodes.clear()
    for (const sent of nodes) {
      const node = { ...sent, inputs: sent.inputs.map((input) => this.nodeAt(input)) }
      this.nodes.set(node.key, { node, index: this.nodes.size })
    }
    return this.nodeAt(root)
  }

  /** When a node was received; -1 for one that was made here. */
  indexOf(key: string): number {
    return this.nodes.get(key)?.index ?? -1
  }

  private nodeAt(key: string): GraphNode {
    const found = this.nodes.get(key)
    if (!found) throw new Error(`The node ${key} was not sent to this thread.`)
    return found.node
  }
}
