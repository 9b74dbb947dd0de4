/** Pixels of a photo at one reduction: level k is 2^k times smaller, sizes rounded up, reduced in linear light. */
export interface PhotoLevel {
  readonly width: number
  readonly height: number
  /**
   * `rgba8`: interleaved bytes, sRGB-encoded. `rgb16`: three planes of 16-bit codes, one behind the other, sRGB-encoded.
   * `linear16`: the same in linear light, for reductions; a step of theirs is a twentieth of an 8-bit code in the blacks.
   */
  readonly format: 'rgba8' | 'rgb16' | 'linear16'
  readonly pixels: ArrayBufferLike
}

/** A decoded photo with its reductions; the buffers are shared between threads where the platform allows it. */
export interface PhotoData {
  readonly id: string
  readonly width: number
  readonly height: number
  readonly levels: readonly PhotoLevel[]
}

/** A buffer that threads can share; a plain one where sharing is not allowed. */
export function sharedBuffer(bytes: number): ArrayBufferLike {
  const canShare = typeof SharedArrayBuffer !== 'undefined' && globalThis.crossOriginIsolated !== false
  return canShare ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes)
}
