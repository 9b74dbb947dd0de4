/** Solves a square system of linear equations by Gaussian elimination with pivots; a column without one counts as 0. */
export function solve(matrix: readonly (readonly number[])[], side: readonly number[]): number[] {
  const size = side.length
  const rows = matrix.map((row, i) => [...row, side[i] ?? 0])
  for (let column = 0; column < size; column++) {
    let best = column
    for (let row = column + 1; row < size; row++) {
      if (Math.abs(rows[row]?.[column] ?? 0) > Math.abs(rows[best]?.[column] ?? 0)) best = row
    }
    const pivot = rows[best] ?? []
    rows[best] = rows[column] ?? []
    rows[column] = pivot
    const own = pivot[column] ?? 0
    if (Math.abs(own) < 1e-12) continue
    for (let row = 0; row < size; row++) {
      const other = rows[row] ?? []
      const factor = row === column ? 0 : (other[column] ?? 0) / own
      if (factor !== 0) for (let k = column; k <= size; k++) other[k] = (other[k] ?? 0) - factor * (pivot[k] ?? 0)
    }
  }
  return rows.map((row, i) => (Math.abs(row[i] ?? 0) < 1e-12 ? 0 : (row[size] ?? 0) / (row[i] ?? 1)))
}
