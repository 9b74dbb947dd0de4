const [CLEAR, END, FIRST] = [256, 257, 258] as const
const [LEAST_BITS, MOST_BITS] = [9, 12] as const
const ENTRIES = 1 << MOST_BITS

/**
 * LZW of TIFF 6.0, section 13, and that of writers before it, whose codes begin at the lowest bit and get longer one entry later: both are told apart by the clear code that a strip
 * begins with, as libtiff does (from memory).
 * @param size bytes that are wanted at most: what comes after them is not looked at
 * @throws Error on a code that has no meaning
 */
export function decodeLzw(data: Uint8Array, size: number): Uint8Array {
  const isOld = data[0] === 0 && ((data[1] ?? 0) & 1) === 1
  const codes = isOld ? lowestFirst(data) : highestFirst(data)
  const early = isOld ? 0 : 1
  const before = new Uint16Array(ENTRIES)
  const last = new Uint8Array(ENTRIES)
  const first = new Uint8Array(ENTRIES)
  const length = new Uint16Array(ENTRIES)
  for (let i = 0; i < 256; i++) [last[i], first[i], length[i]] = [i, i, 1]
  const out = new Uint8Array(size)
  let [at, next, bits, previous] = [0, FIRST as number, LEAST_BITS as number, -1]
  while (at < size) {
    const code = codes(bits)
    if (code < 0 || code === END) break
    if (code === CLEAR) {
      ;[next, bits, previous] = [FIRST, LEAST_BITS, -1]
      continue
    }
    if (code > next || (code === next && previous < 0) || (code >= 256 && code < FIRST)) throw new Error(`There is no code ${code} yet.`)
    if (previous >= 0 && next < ENTRIES) {
      before[next] = previous
      first[next] = first[previous] ?? 0
      last[next] = code === next ? (first[previous] ?? 0) : (first[code] ?? 0)
      length[next] = (length[previous] ?? 0) + 1
      next++
    }
    const end = at + (length[code] ?? 0)
    let entry = code
    for (let to = end - 1; to >= at; to--) {
      // What goes beyond the size is cut off.
      if (to < size) out[to] = last[entry] ?? 0
      entry = before[entry] ?? 0
    }
    at = end
    previous = code
    if (next + early >= 1 << bits && bits < MOST_BITS) bits++
  }
  return at < size ? out.subarray(0, at) : out
}

type Codes = (bits: number) => number

/** Codes whose highest bit comes first; -1 at the end. */
function highestFirst(data: Uint8Array): Codes {
  let [at, held, count] = [0, 0, 0]
  return (bits) => {
    while (count < bits) {
      if (at >= data.length) return -1
      held = ((held << 8) | (data[at++] ?? 0)) & 0xffffff
      count += 8
    }
    count -= bits
    return (held >>> count) & ((1 << bits) - 1)
  }
}

/** Codes whose lowest bit comes first. */
function lowestFirst(data: Uint8Array): Codes {
  let [at, held, count] = [0, 0, 0]
  return (bits) => {
    while (count < bits) {
      if (at >= data.length) return -1
      held |= (data[at++] ?? 0) << count
      count += 8
    }
    const code = held & ((1 << bits) - 1)
    held >>>= bits
    count -= bits
    return code
  }
}
