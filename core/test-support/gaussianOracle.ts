/** A plane blurred by the sampled Gaussian far beyond where it matters (6 sigma), in 64-bit floats, the border repeated. */
export function gaussianOracle(plane: ArrayLike<number>, width: number, height: number, sigma: number): Float64Array {
  const radius = Math.ceil(6 * sigma)
  const weights = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)))
  const total = weights.reduce((sum, w) => sum + w, 0)
  const pass = (source: ArrayLike<number>, along: number, across: number, step: number, lineStep: number): Float64Array => {
    const out = new Float64Array(source.length)
    for (let line = 0; line < across; line++) {
      for (let i = 0; i < along; i++) {
        let sum = 0
        for (let k = -radius; k <= radius; k++) {
          const at = Math.min(along - 1, Math.max(0, i + k))
          sum += weights[k + radius]! * source[line * lineStep + at * step]!
        }
        out[line * lineStep + i * step] = sum / total
      }
    }
    return out
  }
  return pass(pass(plane, width, height, 1, width), height, width, width, 1)
}
