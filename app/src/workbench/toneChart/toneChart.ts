import { areaOf, heightsOf } from '../../common/histogram'

/** A chart of openness over tones, in its own units. */
export const WIDTH = 288
export const HEIGHT = 84
export const PAD = 9

/** Where a tone 0-1 lies across the chart. */
export function toX(tone: number): number {
  return PAD + tone * (WIDTH - 2 * PAD)
}

/** Where an openness 0-1 lies down the chart. */
export function toY(level: number): number {
  return HEIGHT - PAD - level * (HEIGHT - 2 * PAD)
}

/** Tone and openness at a place on the screen, 0-1. */
export function fromScreen(
  chart: SVGSVGElement,
  { clientX, clientY }: { readonly clientX: number; readonly clientY: number },
): {
  readonly x: number
  readonly y: number
} {
  const box = chart.getBoundingClientRect()
  const within = (value: number): number => Number(Math.min(1, Math.max(0, value)).toFixed(3))
  const [x, y] = [((clientX - box.left) * WIDTH) / box.width, ((clientY - box.top) * HEIGHT) / box.height]
  return { x: within((x - PAD) / (WIDTH - 2 * PAD)), y: within((HEIGHT - PAD - y) / (HEIGHT - 2 * PAD)) }
}

/** A curve over tones: a function of 0-1 with values 0-1. */
export function curvePath(curve: (tone: number) => number): string {
  const points = Array.from({ length: 129 }, (_, i) => `${toX(i / 128).toFixed(1)},${toY(curve(i / 128)).toFixed(1)}`)
  return `M${points.join('L')}`
}

/** The area of a histogram; a little stays free above it. */
export function histogramPath(bins: Uint32Array): string {
  return areaOf(heightsOf(bins), { toX, toY: (height) => toY(0.92 * height) })
}
