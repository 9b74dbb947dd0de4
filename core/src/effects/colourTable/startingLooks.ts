import type { Rgb } from '../../colour/hex'
import { colourTableOf } from '../../model/colourTable'
import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { ColourTableControls } from './definition'

/** What these tables do is smooth: few entries say it. */
const SIZE = 9

function look(
  id: string,
  name: string,
  amount: number,
  grade: (colour: Rgb, luma: number) => Rgb,
  size = SIZE,
): StartingLook<ColourTableControls> {
  const places = Array.from({ length: size }, (_, i) => i / (size - 1))
  const values = places.flatMap((b) =>
    places.flatMap((g) =>
      places.flatMap((r) => grade([r, g, b], 0.2126 * r + 0.7152 * g + 0.0722 * b).map((v) => Math.min(1, Math.max(0, v)))),
    ),
  )
  const table = colourTableOf(name, { kind: 'cube', size, values: Float64Array.from(values) })
  return {
    id,
    name,
    controls: { pattern: { table }, shape: {} },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount, linear: false },
  }
}

const towards = (from: number, to: number, part: number): number => from + part * (to - from)
/** A little steeper about the middle. */
const steeper = (v: number, by: number): number => v + by * v * (1 - v) * (2 * v - 1)

/** Tables of our own, made by formula; set by eye. */
export const startingLooks: readonly StartingLook<ColourTableControls>[] = [
  look('amber-and-sea', 'Amber and sea', 85, ([r, g, b], y) => {
    const [dark, bright] = [(1 - y) * (1 - y), y * y]
    return [steeper(r, 0.5) - 0.05 * dark + 0.05 * bright, steeper(g, 0.5) + 0.015 * dark, steeper(b, 0.4) + 0.06 * dark - 0.07 * bright]
  }),
  look('silver-plate', 'Silver plate', 100, ([r, g, b]) => {
    const grey = steeper(0.35 * r + 0.5 * g + 0.15 * b, 0.9)
    return [grey + 0.015 * (1 - grey), grey, towards(grey, 0.96 * grey + 0.02, 0.6)]
  }),
  look('old-postcard', 'Old postcard', 90, ([r, g, b], y) => [
    towards(towards(r, y, 0.35), 0.96, 0.03) * 0.94 + 0.05,
    towards(towards(g, y, 0.35), 0.9, 0.02) * 0.92 + 0.05,
    towards(b, y, 0.45) * 0.8 + 0.08,
  ]),
  look('blue-hour', 'Blue hour', 85, ([r, g, b], y) => [
    towards(r, y, 0.25) * 0.86,
    towards(g, y, 0.15) * 0.93,
    Math.min(1, towards(b, y, 0.1) * 1.02 + 0.05 * (1 - y)),
  ]),
]

/** Changes nothing: between two entries a table is a straight line. */
export const neutral: StartingLook<ColourTableControls> = look(NEUTRAL, 'Neutral', 100, (colour) => colour, 2)
