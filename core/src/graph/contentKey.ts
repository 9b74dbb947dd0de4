/** 128-bit content key of a text, as 32 hexadecimal digits. */
export function contentKey(text: string): string {
  return contentWords(text)
    .map((word) => word.toString(16).padStart(8, '0'))
    .join('')
}

/** The same as four numbers of 32 bits without sign: four multiply-rotate lanes, each finished as in MurmurHash3. */
export function contentWords(text: string): [number, number, number, number] {
  let a = 0x239b961b
  let b = 0xab0e9789
  let c = 0x38b34ae5
  let d = 0xa1e38b93
  // Two characters at a time; the length tells a last one from one with a zero behind it.
  for (let i = 0; i < text.length; i += 2) {
    const unit = text.charCodeAt(i) | ((i + 1 < text.length ? text.charCodeAt(i + 1) : 0) << 16)
    a = turned(Math.imul(a ^ unit, 0x85ebca6b), 13) ^ b
    b = turned(Math.imul(b ^ unit, 0xc2b2ae35), 14) ^ c
    c = turned(Math.imul(c ^ unit, 0x27d4eb2f), 15) ^ d
    d = turned(Math.imul(d ^ unit, 0x165667b1), 16) ^ a
  }
  return [finish(a), finish(b), finish(c), finish(d ^ text.length)]
}

function turned(value: number, bits: number): number {
  return (value << bits) | (value >>> (32 - bits))
}

function finish(lane: number): number {
  let h = lane
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}
