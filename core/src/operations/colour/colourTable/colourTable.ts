import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** Values of a table as base 64 of 16-bit codes, the lower byte first. */
export type ColourTableParameters = { readonly kind: 'curves' | 'cube'; readonly size: number; readonly codes: string }

/** Tones through a table: each channel through its curve in straight lines, or all through a cube by tetrahedral interpolation. Tones are clamped to 0-1. */
export const colourTable: Operation<ColourTableParameters> = {
  name: 'colourTable',
  run(context, { kind, size, codes }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    const values = valuesOf(codes)
    const entries = values.length
    const room = context.scratch(entries * 4 + 16)
    new Float32Array(kernels.memory.buffer, room, entries).set(values)
    if (kind === 'cube') kernels.cubeColours(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, room, size, ...out)
    else {
      const table = context.scratch(size * 4 + 16)
      out.forEach((address, channel) => {
        new Float32Array(kernels.memory.buffer, table, size).forEach((_, i, all) => (all[i] = values[3 * i + channel] ?? 0))
        kernels.throughTable(plane(tones, channel), count, table, size - 1, address)
      })
    }
    return { kind: 'tones', rect, planes: out }
  },
}

/** The table that was read last: all tiles of a picture read the same. */
let known: { readonly codes: string; readonly values: Float32Array } | undefined

function valuesOf(codes: string): Float32Array {
  if (known?.codes === codes) return known.values
  const bytes = atob(codes)
  const code = (i: number): number => bytes.charCodeAt(2 * i) + 256 * bytes.charCodeAt(2 * i + 1)
  const values = Float32Array.from({ length: bytes.length / 2 }, (_, i) => code(i) / 65535)
  known = { codes, values }
  return values
}

export function colourTableNode(tones: GraphNode, { kind, size, codes }: ColourTableParameters): GraphNode {
  return graphNode('colourTable', { kind, size, codes }, [tones])
}
