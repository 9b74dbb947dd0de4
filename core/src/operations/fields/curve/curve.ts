import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt } from '../../plane'
import { curveTable, type CurvePoint } from './curveTable'

const STEPS = 1024

type CurveParameters = { readonly points: readonly CurvePoint[] }

/** Tones or a field through a curve; beyond 0-1 its end values. */
export const curve: Operation<CurveParameters> = {
  name: 'curve',
  run(context, { points }, inputs, rect) {
    const { kernels } = context
    const input = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const table = context.scratch((STEPS + 1) * 4)
    const planes = input.planes.slice(0, input.kind === 'field' ? 1 : undefined).map((source) => {
      const out = context.plane(count)
      // A new plane may have grown the memory.
      new Float32Array(kernels.memory.buffer, table, STEPS + 1).set(curveTable(points, STEPS))
      kernels.throughTable(source, count, table, STEPS, out)
      return out
    })
    return { kind: input.kind, rect, planes }
  },
}

/** `input` through a curve, or `input` itself when the curve is the diagonal. */
export function curveNode(input: GraphNode, points: readonly CurvePoint[]): GraphNode {
  return points.every(({ x, y }) => x === y) && points.length > 1 && points[0]?.x === 0 && points.at(-1)?.x === 1
    ? input
    : graphNode('curve', { points }, [input])
}
