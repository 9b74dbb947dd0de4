import type { Kernels } from '../graph/operation'

export type Scratch = (bytes: number) => number

/** Runs `work` with blocks of kernel memory that are given back at the end. */
export function withScratch<T>(kernels: Kernels, work: (scratch: Scratch) => T): T {
  const blocks: number[] = []
  try {
    return work((bytes) => {
      const address = kernels.allocate(bytes)
      blocks.push(address)
      return address
    })
  } finally {
    blocks.forEach((address) => kernels.release(address))
  }
}
