const COLUMNS = 64

/** The bins of a histogram in fewer columns. */
export function columnsOf(bins: Uint32Array): number[] {
  const share = bins.length / COLUMNS
  return Array.from({ length: COLUMNS }, (_, i) => bins.subarray(i * share, (i + 1) * share).reduce((sum, count) => sum + count, 0))
}

/** The columns by the square root, so that small numbers of bright pixels are seen too. */
export function heightsOf(bins: Uint32Array): number[] {
  return columnsOf(bins).map(Math.sqrt)
}

/** Places of tones 0-1 and heights 0-1 in the units of a chart. */
interface Chart {
  toX(tone: number): number
  toY(height: number): number
}

/** A chart that is filled by its histogram, but for a little above it. */
export function wholeChart(width: number, height: number): Chart {
  return { toX: (tone) => width * tone, toY: (part) => height - 0.94 * height * part }
}

/** The line over the columns, as data of an SVG path without its first letter. */
export function lineOf(heights: readonly number[], { toX, toY }: Chart, most = Math.max(1, ...heights)): string {
  return heights.map((height, i) => `${toX((i + 0.5) / COLUMNS).toFixed(1)},${toY(Math.min(1, height / most)).toFixed(1)}`).join('L')
}

/** The area under the columns, as data of an SVG path. */
export function areaOf(heights: readonly number[], chart: Chart, most?: number): string {
  const { toX, toY } = chart
  return `M${toX(0)},${toY(0)}L${lineOf(heights, chart, most)}L${toX(1)},${toY(0)}Z`
}
