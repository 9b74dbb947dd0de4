import { z } from 'zod'
import type { ColourTableData } from './cubeFile'
import { base64Of, bytesFrom } from './readingMethod'

const BYTES = 2
const CHANNELS = 3

/** A table of colours as it is kept: 16-bit codes in base 64, the lower byte first, in the order of a `.cube` file. */
export const colourTableSchema = z
  .strictObject({
    name: z.string().max(120),
    kind: z.enum(['curves', 'cube']),
    size: z.int().min(2).max(1024),
    codes: z.base64().max(400_000),
  })
  .refine(({ kind, size, codes }) => bytesIn(codes) === entriesOf(kind, size) * CHANNELS * BYTES, {
    message: 'expected as many codes as its size says',
  })
export type ColourTable = z.infer<typeof colourTableSchema>

function entriesOf(kind: 'curves' | 'cube', size: number): number {
  return kind === 'curves' ? size : size ** 3
}

function bytesIn(base64: string): number {
  return (base64.length / 4) * 3 - (/=*$/.exec(base64)?.[0].length ?? 0)
}

/** A table to be kept. */
export function colourTableOf(name: string, { kind, size, values }: ColourTableData): ColourTable {
  const codes = new DataView(new ArrayBuffer(values.length * BYTES))
  values.forEach((value, i) => codes.setUint16(i * BYTES, Math.round(65535 * value), true))
  return { name: name.slice(0, 120), kind, size, codes: base64Of(new Uint8Array(codes.buffer)) }
}

/** Its values 0-1. */
export function valuesOfTable({ codes }: Pick<ColourTable, 'codes'>): Float32Array {
  const bytes = bytesFrom(codes)
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  return Float32Array.from({ length: bytes.length / BYTES }, (_, i) => view.getUint16(i * BYTES, true) / 65535)
}
