export type Vector = readonly [number, number, number]

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
export const scale = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k, a[2] * k]
export const multiply = (a: Vector, b: Vector): Vector => [a[0] * b[0], a[1] * b[1], a[2] * b[2]]
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const length = (a: Vector): number => Math.sqrt(dot(a, a))
export const normalise = (a: Vector): Vector => scale(a, 1 / (length(a) || 1))
export const along = (origin: Vector, direction: Vector, t: number): Vector => [
  origin[0] + direction[0] * t,
  origin[1] + direction[1] * t,
  origin[2] + direction[2] * t,
]
export const cross = (a: Vector, b: Vector): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
export const reflect = (d: Vector, n: Vector): Vector => along(d, n, -2 * dot(d, n))
export const blend = (a: Vector, b: Vector, t: number): Vector => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
]

/** Two directions at right angles to `n` and to each other. */
export function basis(n: Vector): readonly [Vector, Vector] {
  const helper: Vector = Math.abs(n[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]
  const u = normalise(cross(helper, n))
  return [u, cross(n, u)]
}
