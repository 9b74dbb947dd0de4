import { gridAt, type GraphNode, type Size } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import FFT from 'fft.js'

/** Power of the shapes of one size. */
export interface SpectrumPoint {
  /** Photo px from one shape to the next. */
  readonly size: number
  /** Decibels against the strongest. */
  readonly power: number
}

const SIDE = 512
const BANDS = 28

/** How much of a picture there is of each size of shapes: its power spectrum (a Hann window, then two-dimensional FFT), averaged over all directions. */
export async function spectrumOf(pool: RenderPool, node: GraphNode, photo: Size, signal: AbortSignal): Promise<SpectrumPoint[]> {
  const grid = gridAt(photo, Math.min(1, (1.001 * SIDE) / Math.min(photo.width, photo.height)))
  const rect = { x: Math.floor((grid.width - SIDE) / 2), y: Math.floor((grid.height - SIDE) / 2), width: SIDE, height: SIDE }
  if (rect.x < 0 || rect.y < 0) return []
  const pixels = await pool.renderPixels({ node, grid, rect, tileSize: SIDE, priority: priorities.measure, signal })
  const tones = Float64Array.from({ length: SIDE * SIDE }, (_, i) => (pixels[4 * i] ?? 0) / 255)
  return bandsOf(powerOf(tones), grid.pitchX)
}

/** Power of each frequency, the lowest in the corner. */
function powerOf(tones: Float64Array): Float64Array {
  const mean = tones.reduce((sum, value) => sum + value, 0) / tones.length
  const hann = Float64Array.from({ length: SIDE }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / SIDE))
  const fft = new FFT(SIDE)
  const rows = Array.from({ length: SIDE }, (_, y) => {
    const out = fft.createComplexArray()
    fft.realTransform(
      out,
      Array.from({ length: SIDE }, (__, x) => ((tones[y * SIDE + x] ?? 0) - mean) * (hann[x] ?? 0) * (hann[y] ?? 0)),
    )
    fft.completeSpectrum(out)
    return out
  })
  const power = new Float64Array(SIDE * SIDE)
  const [column, out] = [fft.createComplexArray(), fft.createComplexArray()]
  for (let x = 0; x < SIDE; x++) {
    for (let y = 0; y < SIDE; y++) {
      column[2 * y] = rows[y]?.[2 * x] ?? 0
      column[2 * y + 1] = rows[y]?.[2 * x + 1] ?? 0
    }
    fft.transform(out, column)
    for (let y = 0; y < SIDE; y++) power[y * SIDE + x] = (out[2 * y] ?? 0) ** 2 + (out[2 * y + 1] ?? 0) ** 2
  }
  return power
}

/** Means over rings of frequencies that are each wider by the same ratio. */
function bandsOf(power: Float64Array, pitch: number): SpectrumPoint[] {
  const sums = Array.from({ length: BANDS }, () => ({ power: 0, count: 0 }))
  const folded = (i: number): number => (i > SIDE / 2 ? i - SIDE : i)
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      const frequency = Math.hypot(folded(x), folded(y))
      if (frequency < 1 || frequency > SIDE / 2) continue
      const band = sums[Math.min(BANDS - 1, Math.floor((BANDS * Math.log(frequency)) / Math.log(SIDE / 2)))]
      if (!band) continue
      band.power += power[y * SIDE + x] ?? 0
      band.count++
    }
  }
  const means = sums.map(({ power: sum, count }) => (count > 0 ? sum / count : 0))
  const most = Math.max(...means, 1e-12)
  return means.flatMap((mean, index) => {
    if ((sums[index]?.count ?? 0) === 0) return []
    const frequency = Math.pow(SIDE / 2, (index + 0.5) / BANDS)
    return [{ size: (SIDE * pitch) / frequency, power: Math.max(-80, 10 * Math.log10(Math.max(1e-12, mean / most))) }]
  })
}
