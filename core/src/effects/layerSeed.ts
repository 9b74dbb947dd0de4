/**
 * Seed of one of several layers of a pattern, a whole number of 32 bits.
 * @param layers how many seeds each seed of the pattern takes
 */
export function layerSeed(seed: number, layers: number, index: number): number {
  const plain = seed * layers + index
  return plain < 2 ** 31 ? plain : hashed(seed, index)
}

/** The finalizer of MurmurHash3 (Appleby, public domain). */
function hashed(seed: number, index: number): number {
  let h = Math.imul(seed | 0, 0x9e3779b1) ^ Math.imul(index + 1, 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) | 0
}
