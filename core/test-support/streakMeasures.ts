/** Main direction of the streaks in degrees counter-clockwise, 0-180, by the structure tensor of central differences. */
export function directionOf(plane: Float32Array, width: number, height: number): number {
  let [xx, xy, yy] = [0, 0, 0]
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const gx = plane[i + 1]! - plane[i - 1]!
      // y points down in the picture and up in the angle.
      const gy = plane[i - width]! - plane[i + width]!
      xx += gx * gx
      xy += gx * gy
      yy += gy * gy
    }
  }
  // The gradient stands across the streaks.
  const across = (0.5 * Math.atan2(2 * xy, xx - yy) * 180) / Math.PI
  return (across + 90 + 180) % 180
}

/**
 * Length of the streaks: for a box of length L the autocorrelation along it falls linearly to one half at L / 2;
 * read off where it crosses one half of its peak above the level of independent streaks.
 */
export function lengthAlong(plane: Float32Array, width: number, height: number, angle: number): number {
  const [dx, dy] = [Math.cos((angle * Math.PI) / 180), -Math.sin((angle * Math.PI) / 180)]
  const mean = plane.reduce((sum, v) => sum + v, 0) / plane.length
  const at = (x: number, y: number): number => {
    const [ix, iy] = [Math.floor(x), Math.floor(y)]
    const [tx, ty] = [x - ix, y - iy]
    const i = iy * width + ix
    return (1 - ty) * ((1 - tx) * plane[i]! + tx * plane[i + 1]!) + ty * ((1 - tx) * plane[i + width]! + tx * plane[i + width + 1]!) - mean
  }
  const margin = 80
  const correlation = (lag: number): number => {
    let sum = 0
    for (let y = margin; y < height - margin; y += 2)
      for (let x = margin; x < width - margin; x++) sum += (plane[y * width + x]! - mean) * at(x + lag * dx, y + lag * dy)
    return sum
  }
  const peak = correlation(0)
  for (let lag = 1; lag < margin; lag += 0.5) if (correlation(lag) < peak / 2) return 2 * lag
  return 2 * margin
}

/** Mean and variance inside each block of `factor` by `factor` px. */
export function varianceOf(plane: Float32Array, width: number, factor: number): { mean: number[]; variance: number[] } {
  const mean: number[] = []
  const variance: number[] = []
  const height = plane.length / width
  for (let y = 0; y < height; y += factor) {
    for (let x = 0; x < width; x += factor) {
      let [sum, squares] = [0, 0]
      for (let j = 0; j < factor; j++) {
        for (let i = 0; i < factor; i++) {
          const v = plane[(y + j) * width + x + i]!
          sum += v
          squares += v * v
        }
      }
      const count = factor * factor
      mean.push(sum / count)
      variance.push(squares / count - (sum / count) ** 2)
    }
  }
  return { mean, variance }
}
