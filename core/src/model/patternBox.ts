import { within180 } from './degrees'

/** Names of what a box on the photo changes: of a pattern that goes on without end. */
export interface PatternBox {
  /** Where the pattern has its fixed point, photo px. */
  readonly x: string
  readonly y: string
  /** Of the largest shapes, photo px: the root of along times across. */
  readonly size: string
  /** How many times longer than wide they are. */
  readonly stretch: string
  /** Degrees counter-clockwise. */
  readonly turn: string
}

/** Values of what a box changes. */
export type Placed = { readonly [K in keyof PatternBox]: number }

interface Place {
  readonly x: number
  readonly y: number
}

/** A pattern moved by photo px. */
export function movedBy(placed: Placed, { x, y }: Place): Placed {
  return { ...placed, x: placed.x + x, y: placed.y + y }
}

/** A pattern turned about a place, degrees counter-clockwise. */
export function turnedAbout(placed: Placed, about: Place, degrees: number): Placed {
  const radians = (degrees * Math.PI) / 180
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)]
  const [dx, dy] = [placed.x - about.x, placed.y - about.y]
  // y points down.
  return { ...placed, x: about.x + cos * dx + sin * dy, y: about.y - sin * dx + cos * dy, turn: within180(placed.turn + degrees) }
}

/** A pattern so many times as long along its turn, and so many times as wide across it, about a place. */
export function pulledAbout(placed: Placed, about: Place, along: number, across: number): Placed {
  const radians = (placed.turn * Math.PI) / 180
  const [ux, uy] = [Math.cos(radians), -Math.sin(radians)]
  const [dx, dy] = [placed.x - about.x, placed.y - about.y]
  const [p, q] = [along * (dx * ux + dy * uy), across * (-dx * uy + dy * ux)]
  return {
    ...placed,
    x: about.x + p * ux - q * uy,
    y: about.y + p * uy + q * ux,
    size: placed.size * Math.sqrt(along * across),
    stretch: (placed.stretch * along) / across,
  }
}

/** Half the length and half the width of the largest shapes. */
export function halvesOf({ size, stretch }: Placed): { readonly along: number; readonly across: number } {
  return { along: 0.5 * size * Math.sqrt(stretch), across: (0.5 * size) / Math.sqrt(stretch) }
}
