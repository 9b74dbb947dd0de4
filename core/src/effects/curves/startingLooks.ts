import type { CurvePoint } from '../../operations/fields/curve/curveTable'
import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { CurvesControls } from './definition'

type Numbers = readonly (readonly [number, number])[]
const curve = (points: Numbers): CurvePoint[] => points.map(([x, y]) => ({ x, y }))
const still: Numbers = [
  [0, 0],
  [1, 1],
]

function look(id: string, name: string, all: Numbers, red = still, green = still, blue = still): StartingLook<CurvesControls> {
  return {
    id,
    name,
    controls: {
      pattern: { all: curve(all), red: curve(red), green: curve(green), blue: curve(blue) },
      shape: { keeps: 'colours' },
    },
    colour: { tint: '#ffffff', light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'normal', amount: 100, linear: false },
  }
}

/** Set by eye. */
export const startingLooks: readonly StartingLook<CurvesControls>[] = [
  look('gentle-s', 'Gentle S', [
    [0, 0],
    [0.25, 0.2],
    [0.75, 0.81],
    [1, 1],
  ]),
  look('faded', 'Faded', [
    [0, 0.09],
    [0.3, 0.29],
    [0.72, 0.74],
    [1, 0.94],
  ]),
  look(
    'crossed-colours',
    'Crossed colours',
    still,
    [
      [0, 0],
      [0.3, 0.24],
      [0.75, 0.82],
      [1, 1],
    ],
    [
      [0, 0],
      [0.3, 0.27],
      [0.75, 0.79],
      [1, 1],
    ],
    [
      [0, 0.1],
      [0.5, 0.5],
      [1, 0.88],
    ],
  ),
]

/** Changes nothing. */
export const neutral: StartingLook<CurvesControls> = look(NEUTRAL, 'Neutral', still)
