import type { Rect } from '@welkinar/core'

/** Stripes mark what is newly white, squares what is newly black: they are told apart without their colours too. Ochre and violet: red, green, blue. */
const ON_WHITE = [206, 134, 10] as const
const ON_BLACK = [156, 104, 245] as const
/** Px of a stripe or a square. */
const STEP = 3

/** Makes of what is newly clipped (red: white, green: black) the marks that are drawn over the picture, and of the rest nothing; in place. */
export function clippedToMarks(pixels: Uint8ClampedArray, { x: left, y: top, width }: Rect): void {
  for (let i = 0; i < pixels.length / 4; i++) {
    const [x, y] = [left + (i % width), top + Math.floor(i / width)]
    const white = (pixels[4 * i] ?? 0) > 127
    const black = (pixels[4 * i + 1] ?? 0) > 127
    const stripe = white && Math.floor((x + y) / STEP) % 2 === 0
    const square = black && Math.floor(x / STEP) % 2 === 0 && Math.floor(y / STEP) % 2 === 0
    pixels.set([...(stripe ? ON_WHITE : ON_BLACK), stripe || square ? 255 : 0], 4 * i)
  }
}
