import type { Size } from '../planes/grid'
import { within180 } from './degrees'
import type { SceneMarks } from './marks'

/** How a pattern lies on the photo. */
export interface Placed {
  /** Where it has its fixed point, photo px. */
  readonly x: number
  readonly y: number
  /** Of the largest shapes, photo px: the root of along times across. */
  readonly size: number
  /** How many times longer than wide they are. */
  readonly stretch: number
  /** Degrees counter-clockwise. */
  readonly turn: number
}

/** What a pattern needs to know to be placed. */
export interface BoxScene extends Size {
  readonly marks: SceneMarks
}

/** What a box on the photo moves, pulls and turns. @typeParam C the values among which those of the pattern are */
export interface PatternBox<C = never> {
  /** Paths of all that it changes. */
  readonly paths: readonly string[]
  /** What cannot be done to this pattern. */
  readonly lacks?: readonly ('stretch' | 'turn')[]
  /** How the pattern lies; nothing if these values have none. */
  read(values: C, scene: BoxScene): Placed | undefined
  /** Writes it into the values. */
  write(values: C, placed: Placed, scene: BoxScene): void
}

/** Where the fixed point of a pattern lies that is turned counter-clockwise about `about`, and then moved. */
export function turnedPlace(about: Place, turn: number, move: Place): Place {
  const { x, y } = turnedAbout({ x: 0, y: 0, size: 1, stretch: 1, turn: 0 }, about, turn)
  return { x: x + move.x, y: y + move.y }
}

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
