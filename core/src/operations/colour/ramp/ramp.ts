import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** A colour of a ramp, sRGB-encoded 0-1, at an intensity 0-1. */
export interface RampStop {
  readonly at: number
  readonly colour: Rgb
}

const STEPS = 512

type RampParameters = {
  readonly stops: readonly RampStop[]
  /** As light mixes: between two stops a straight line in linear light. */
  readonly linear?: true
}

/** Colours by intensity: between two stops a straight line in OKLab (Ottosson 2020), or in linear light; before the first and after the last their own colour. Input: a field. Gives tones. */
export const ramp: Operation<RampParameters> = {
  name: 'ramp',
  run(context, { stops, linear }, inputs, rect) {
    const count = rect.width * rect.height
    const field = plane(inputAt(inputs, 0), 0)
    const out = [0, 1, 2].map(() => context.plane(count))
    const tables = rampTables(context, stops, linear)
    out.forEach((address, channel) => context.kernels.throughTable(field, count, tables[channel] ?? 0, STEPS, address))
    return { kind: 'tones', rect, planes: out }
  },
}

/** @param linear lines in linear light instead of OKLab */
export function rampNode(field: GraphNode, stops: readonly RampStop[], linear?: true): GraphNode {
  return graphNode('ramp', { stops, ...(linear ? { linear } : {}) }, [field])
}

/** Addresses of the encoded red, green and blue of the ramp in steps. */
function rampTables({ kernels, scratch }: RunContext, stops: readonly RampStop[], linear: true | undefined): [number, number, number] {
  const sorted = [...stops].sort((a, b) => a.at - b.at)
  const stopBytes = sorted.length * 4 + 16
  const encoded = [0, 1, 2].map(() => scratch(stopBytes)) as [number, number, number]
  const between = [0, 1, 2].map(() => scratch(stopBytes)) as [number, number, number]
  const tables = [0, 1, 2].map(() => scratch((STEPS + 1) * 4 + 16)) as [number, number, number]
  encoded.forEach((address, channel) =>
    new Float32Array(kernels.memory.buffer, address, sorted.length).set(sorted.map(({ colour }) => colour[channel] ?? 0)),
  )
  if (linear) encoded.forEach((address, channel) => kernels.decodePlane(address, between[channel] ?? 0, sorted.length))
  else kernels.oklabPlanes(...encoded, sorted.length, ...between)
  const known = between.map((address) => new Float32Array(kernels.memory.buffer, address, sorted.length).slice())
  tables.forEach((address, axis) => {
    const values = new Float32Array(kernels.memory.buffer, address, STEPS + 1)
    for (let i = 0; i <= STEPS; i++) values[i] = along(sorted, known[axis] ?? new Float32Array(), i / STEPS)
  })
  if (linear) tables.forEach((address) => kernels.encodePlane(address, address, STEPS + 1))
  else kernels.encodedFromOklab(...tables, STEPS + 1, ...tables)
  return tables
}

function along(stops: readonly RampStop[], values: Float32Array, x: number): number {
  const next = stops.findIndex(({ at }) => at >= x)
  if (next < 0) return values[stops.length - 1] ?? 0
  const [a, b] = [stops[next - 1], stops[next]]
  if (!a || !b) return values[next] ?? 0
  const t = (x - a.at) / Math.max(1e-6, b.at - a.at)
  return (values[next - 1] ?? 0) * (1 - t) + (values[next] ?? 0) * t
}
