import type { Rgb } from '../../../colour/hex'
import type { RunContext } from '../../../graph/operation'
import type { Value } from '../../../planes/value'
import { plane } from '../../plane'

/** Addresses of tones in OKLab, on blocks that are given back when the operation has run. */
export function oklabPlanes({ kernels, scratch }: RunContext, tones: Value): readonly [number, number, number] {
  const count = tones.rect.width * tones.rect.height
  const planes = [0, 1, 2].map(() => scratch(count * 4)) as [number, number, number]
  kernels.oklabPlanes(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, ...planes)
  return planes
}

/** OKLab of one colour, as the kernels compute it. */
export function oklabOfColour({ kernels, scratch }: RunContext, colour: Rgb): [number, number, number] {
  const block = scratch(96)
  colour.forEach((value, channel) => kernels.fill(block + channel * 16, 4, value))
  kernels.oklabPlanes(block, block + 16, block + 32, 4, block + 48, block + 64, block + 80)
  const values = new Float32Array(kernels.memory.buffer, block + 48, 12)
  return [values[0] ?? 0, values[4] ?? 0, values[8] ?? 0]
}
