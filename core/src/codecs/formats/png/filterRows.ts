import type { Kernels } from '../../../graph/operation'

/** Bytes that are filtered at once, about: they stay in the cache of the processor. */
const AT_ONCE = 500_000

/**
 * Rows of samples as a PNG compresses them, filtered (W3C PNG, third edition, section 9). The first row reads nothing above it.
 * @param samples rows of `rowBytes` bytes
 * @param step bytes of a pixel
 * @returns rows of a byte that names the filter, and `rowBytes` more
 */
export function filterRows(kernels: Kernels, samples: Uint8Array, rowBytes: number, step: number): Uint8Array<ArrayBuffer> {
  const rows = samples.length / rowBytes
  const most = Math.max(1, Math.floor(AT_ONCE / rowBytes))
  const filtered = new Uint8Array((rowBytes + 1) * rows)
  const from = kernels.allocate((most + 1) * rowBytes)
  const scratch = kernels.allocate(2 * rowBytes + 64)
  const to = kernels.allocate(most * (rowBytes + 1))
  try {
    for (let first = 0; first < rows; first += most) {
      const count = Math.min(most, rows - first)
      const above = first > 0 ? 1 : 0
      const piece = samples.subarray((first - above) * rowBytes, (first + count) * rowBytes)
      new Uint8Array(kernels.memory.buffer, from, piece.length).set(piece)
      kernels.filterRows(from + above * rowBytes, rowBytes, step, count, above > 0, scratch, to)
      filtered.set(new Uint8Array(kernels.memory.buffer, to, count * (rowBytes + 1)), first * (rowBytes + 1))
    }
  } finally {
    for (const address of [from, scratch, to]) kernels.release(address)
  }
  return filtered
}
