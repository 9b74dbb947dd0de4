import type { SmallPhoto } from './smallPhoto'

/** Larger: fewer and larger parts. */
const SCALE = 1.2
const LEAST_PIXELS = 20

/** The part that each pixel belongs to, and how many there are. */
export interface Segments {
  readonly labels: Int32Array
  readonly count: number
}

/**
 * Parts of one colour: graph-based segmentation (Felzenszwalb and Huttenlocher 2004, from memory). Neighbours are joined from the least different to the most, as long as they differ less than
 * the parts do in themselves, plus a share that falls with their size.
 */
export function segments({ width, height, channels: [red, green, blue] }: SmallPhoto): Segments {
  const pixels = width * height
  // Two for each pixel: to its right and below it; weights beyond the borders are infinite.
  const weights = new Float32Array(2 * pixels).fill(Infinity)
  const weigh = (a: number, b: number, edge: number): void => {
    const [r, g, bl] = [(red[a] ?? 0) - (red[b] ?? 0), (green[a] ?? 0) - (green[b] ?? 0), (blue[a] ?? 0) - (blue[b] ?? 0)]
    weights[edge] = Math.sqrt(r * r + g * g + bl * bl)
  }
  for (let i = 0; i < pixels; i++) {
    if (i % width < width - 1) weigh(i, i + 1, 2 * i)
    if (i + width < pixels) weigh(i, i + width, 2 * i + 1)
  }
  const order = inOrder(weights)
  const parent = Int32Array.from({ length: pixels }, (_, i) => i)
  const size = new Int32Array(pixels).fill(1)
  const inside = new Float32Array(pixels)
  const root = (i: number): number => {
    let top = i
    while (parent[top] !== top) top = parent[top] as number
    for (let next = parent[i] as number; next !== top; next = parent[i] as number) {
      parent[i] = top
      i = next
    }
    return top
  }
  const unite = (a: number, b: number, weight: number): void => {
    parent[b] = a
    size[a] = (size[a] ?? 0) + (size[b] ?? 0)
    inside[a] = weight
  }
  const endsOf = (edge: number): [number, number] => [root(edge >> 1), root((edge >> 1) + (edge & 1 ? width : 1))]
  for (const edge of order) {
    const [one, other] = endsOf(edge)
    const weight = weights[edge] ?? 0
    if (one === other) continue
    const least = Math.min((inside[one] ?? 0) + SCALE / (size[one] ?? 1), (inside[other] ?? 0) + SCALE / (size[other] ?? 1))
    if (weight <= least) unite(one, other, weight)
  }
  for (const edge of order) {
    const [one, other] = endsOf(edge)
    if (one !== other && Math.min(size[one] ?? 0, size[other] ?? 0) < LEAST_PIXELS) unite(one, other, weights[edge] ?? 0)
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

/** Edges by their weights, the least first, to a part of 4096; those of infinite weight are left out. */
function inOrder(weights: Float32Array): Int32Array {
  const steps = 4096
  const stepOf = (weight: number): number => Math.min(steps - 1, Math.floor((weight * steps) / 2))
  const starts = new Int32Array(steps + 1)
  for (const weight of weights) if (weight < Infinity) starts[stepOf(weight) + 1]!++
  for (let step = 0; step < steps; step++) starts[step + 1]! += starts[step]!
  const order = new Int32Array(starts[steps]!)
  weights.forEach((weight, edge) => {
    if (weight < Infinity) order[starts[stepOf(weight)]!++] = edge
  })
  return order
}
