import type { SmallPhoto } from './smallPhoto'

/** Larger: fewer and larger parts. */
const SCALE = 1.2
const LEAST_PIXELS = 20

/**
 * Parts of one colour: graph-based segmentation (Felzenszwalb and Huttenlocher 2004, from memory). Neighbours are joined from the least different to the most, as long as they differ less than
 * the parts do in themselves, plus a share that falls with their size.
 */
export function segments({ width, height, channels }: SmallPhoto): { readonly labels: Int32Array; readonly count: number } {
  const pixels = width * height
  const edges: { readonly a: number; readonly b: number; readonly weight: number }[] = []
  const join = (a: number, b: number): void => {
    const weight = Math.hypot(...channels.map((channel) => (channel[a] ?? 0) - (channel[b] ?? 0)))
    edges.push({ a, b, weight })
  }
  for (let i = 0; i < pixels; i++) {
    if (i % width < width - 1) join(i, i + 1)
    if (i + width < pixels) join(i, i + width)
  }
  edges.sort((one, other) => one.weight - other.weight)
  const parent = Int32Array.from({ length: pixels }, (_, i) => i)
  const size = new Int32Array(pixels).fill(1)
  const inside = new Float32Array(pixels)
  const root = (i: number): number => {
    let top = i
    while (parent[top] !== top) top = parent[top] as number
    while (parent[i] !== top) [i, parent[i]] = [parent[i] as number, top]
    return top
  }
  const unite = (a: number, b: number, weight: number): void => {
    parent[b] = a
    size[a] = (size[a] ?? 0) + (size[b] ?? 0)
    inside[a] = weight
  }
  for (const { a, b, weight } of edges) {
    const [one, other] = [root(a), root(b)]
    if (one === other) continue
    const least = Math.min((inside[one] ?? 0) + SCALE / (size[one] ?? 1), (inside[other] ?? 0) + SCALE / (size[other] ?? 1))
    if (weight <= least) unite(one, other, weight)
  }
  for (const { a, b, weight } of edges) {
    const [one, other] = [root(a), root(b)]
    if (one !== other && Math.min(size[one] ?? 0, size[other] ?? 0) < LEAST_PIXELS) unite(one, other, weight)
  }
  const numbers = new Map<number, number>()
  const labels = Int32Array.from({ length: pixels }, (_, i) => {
    const top = root(i)
    const number = numbers.get(top) ?? numbers.size
    numbers.set(top, number)
    return number
  })
  return { labels, count: numbers.size }
}
