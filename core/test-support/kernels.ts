import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { instantiate } from '@welkinar/kernels'
import type { Kernels } from '../src/graph/operation'

/** The kernels as the application uses them, in a memory of their own. */
export async function loadKernels(): Promise<Kernels> {
  const path = createRequire(import.meta.url).resolve('@welkinar/kernels/kernels.wasm')
  return instantiate(await WebAssembly.compile(readFileSync(path)), { env: {} })
}

/** Copies numbers into kernel memory as floats. */
export function put(kernels: Kernels, values: ArrayLike<number>): number {
  const address = kernels.allocate(values.length * 4)
  new Float32Array(kernels.memory.buffer, address, values.length).set(values)
  return address
}

/** Copies floats out of kernel memory. */
export function take(kernels: Kernels, address: number, count: number): Float32Array {
  return new Float32Array(kernels.memory.buffer, address, count).slice()
}
