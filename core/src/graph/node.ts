import { contentKey } from './contentKey'

/** Parameters of an operation: plain JSON, so that a node can be hashed and sent to a worker. */
export type Parameters = Readonly<Record<string, unknown>>

/** One step of the computation of a picture. `key` stands for all it depends on. */
export interface GraphNode {
  readonly operation: string
  readonly params: Parameters
  readonly inputs: readonly GraphNode[]
  readonly key: string
  /** Whether it is the picture up to an effect though its operation does not say so. */
  readonly isStage?: boolean
}

/** A node whose key follows from the operation, its parameters and its inputs. */
export function graphNode(operation: string, params: Parameters, inputs: readonly GraphNode[] = []): GraphNode {
  const key = contentKey(`${operation} ${JSON.stringify(params)} ${inputs.map((input) => input.key).join(' ')}`)
  return { operation, params, inputs, key }
}

/** The same node as the picture up to an effect: one that takes the place of all beneath it. It has a key of its own. */
export function asStage(node: GraphNode): GraphNode {
  return { ...node, key: contentKey(`stage ${node.key}`), isStage: true }
}
