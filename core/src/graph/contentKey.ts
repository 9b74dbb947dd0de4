/** 128-bit content key of a text, as 32 hexadecimal digits: four multiply-rotate lanes, each finished as in MurmurHash3. */
export function contentKey(text: string): string {
  const state = [0x239b961b, 0xab0e9789, 0x38b34ae5, 0xa1e38b93]
  const factors = [0x85ebca6b, 0xc2b2ae35, 0x27d4eb2f, 0x165667b1]
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i)
    for (let lane = 0; lane < 4; lane++) {
      const mixed = Math.imul((state[lane] ?? 0) ^ unit, factors[lane] ?? 0)
      state[lane] = ((mixed << (13 + lane)) | (mixed >>> (19 - lane))) ^ (state[(lane + 1) & 3] ?? 0)
    }
  }
  return state.map((lane) => finish(lane).toString(16).padStart(8, '0')).join('')
}

function finish(lane: number): number {
  let h = lane
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}
