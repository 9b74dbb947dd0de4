import { ellipseCentre, lineEnds, bandLine, noMarks, type Mask, type PictureSource } from '@welkinar/core'

/** What a correction is confined to by the hand: masks that one drag, one stroke or one tap makes. */
export const correctionShapes = ['ellipse', 'line', 'band', 'outline', 'brush', 'sky'] as const
export type CorrectionShape = (typeof correctionShapes)[number]

/** A mask of a correction. */
export type ShapeMask = Extract<Mask, { kind: CorrectionShape }>

/** The shapes that lie between two ends of a drag. */
export const draggedShapes = ['ellipse', 'line', 'band'] as const satisfies readonly CorrectionShape[]
export type DraggedShape = (typeof draggedShapes)[number]

/** A place on the photo, px. */
export interface Place {
  readonly x: number
  readonly y: number
}

/** What a drag says of a mask: its own values, but those that it starts with. */
export type Drawn = Partial<ShapeMask> & Pick<ShapeMask, 'kind'>

interface DragOptions {
  /** A circle instead of an ellipse; lines and bands level or upright. */
  readonly regular: boolean
  /** Photo px; a shorter drag makes nothing. */
  readonly least: number
}

/** A drag along one side is meant as something as wide as this part of it. */
const FLATTEST = 0.2
/** Part of the drag across a band that is fully open. */
const OPEN_PART = 0.5

/** The mask that lies between the two ends of a drag; undefined for one of next to no length. */
export function shapeBetween(shape: DraggedShape, from: Place, to: Place, { regular, least }: DragOptions): Drawn | undefined {
  if (Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) < least) return undefined
  if (shape === 'ellipse') return ellipseBetween(from, to, regular)
  const end = regular ? alongAnAxis(from, to) : to
  if (shape === 'line') return { kind: 'line', ...from, toX: end.x, toY: end.y, follows: null }
  const across = Math.hypot(end.x - from.x, end.y - from.y)
  // The middle line runs square to the drag.
  const turn = (Math.atan2(end.x - from.x, end.y - from.y) * 180) / Math.PI
  return {
    kind: 'band',
    ...between(from, end),
    turn: Math.round(10 * uprightTurn(turn)) / 10,
    follows: null,
    width: OPEN_PART * across,
    softness: ((1 - OPEN_PART) / 2) * across,
  }
}

function ellipseBetween(from: Place, to: Place, round: boolean): Drawn {
  const [wide, high] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  const side = Math.max(wide, high)
  const [width, height] = round ? [side, side] : [Math.max(wide, FLATTEST * side), Math.max(high, FLATTEST * side)]
  const middle = (a: number, b: number, length: number): number => a + (Math.sign(b - a) * length) / 2
  const place = { x: middle(from.x, to.x, width), y: middle(from.y, to.y, height) }
  return { kind: 'ellipse', ...place, radiusX: width / 2, radiusY: height / 2, turn: 0, follows: null }
}

function alongAnAxis(from: Place, to: Place): Place {
  return Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y }
}

function between(a: Place, b: Place): Place {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
}

/** The same line, between -90 and 90 degrees. */
function uprightTurn(turn: number): number {
  return turn > 90 ? turn - 180 : turn <= -90 ? turn + 180 : turn
}

/** A shape in the middle of what is seen, for keys. @param size photo px that are seen across and down */
export function shapeInTheMiddle(shape: DraggedShape, { x, y }: Place, size: { readonly width: number; readonly height: number }): Drawn {
  const reach = 0.12 * Math.min(size.width, size.height)
  const wide = shape === 'ellipse' ? reach : 0
  const made = shapeBetween(shape, { x: x - wide, y: y - reach }, { x: x + wide, y: y + reach }, { regular: false, least: 0 })
  if (!made) throw new Error('A shape of some size was not made.')
  return made
}

/** Where the ring of a correction lies: in the middle of its shape; undefined for one without a place. */
export function middleOfShape(mask: ShapeMask, { marks = noMarks, photo }: PictureSource): Place | undefined {
  switch (mask.kind) {
    case 'ellipse':
      return ellipseCentre(mask, marks)
    case 'line': {
      const { x, y, toX, toY } = lineEnds(mask, marks, photo)
      return between({ x, y }, { x: toX, y: toY })
    }
    case 'band':
      return bandLine(mask, marks, photo)
    case 'outline':
      return middleOf(mask.paths.filter(({ hole }) => !hole).flatMap(({ corners }) => corners))
    case 'brush':
      return middleOf(mask.strokes.filter(({ erase }) => !erase).flatMap(({ points }) => placesOf(points)))
    case 'sky':
      return undefined
  }
}

function placesOf(points: readonly number[]): Place[] {
  const places: Place[] = []
  for (let i = 0; i + 1 < points.length; i += 3) places.push({ x: points[i] ?? 0, y: points[i + 1] ?? 0 })
  return places
}

function middleOf(places: readonly Place[]): Place | undefined {
  const [first] = places
  if (!first) return undefined
  let [left, right, top, bottom] = [first.x, first.x, first.y, first.y]
  for (const { x, y } of places) {
    left = Math.min(left, x)
    right = Math.max(right, x)
    top = Math.min(top, y)
    bottom = Math.max(bottom, y)
  }
  return between({ x: left, y: top }, { x: right, y: bottom })
}

/** A shape moved by so much, and resized by a factor; what has no place or size of its own stays. */
export function movedShape(mask: ShapeMask, by: Place, factor: number): Partial<ShapeMask> {
  switch (mask.kind) {
    case 'ellipse':
      return { x: mask.x + by.x, y: mask.y + by.y, follows: null, radiusX: mask.radiusX * factor, radiusY: mask.radiusY * factor }
    case 'band':
      return { x: mask.x + by.x, y: mask.y + by.y, follows: null, width: mask.width * factor, softness: mask.softness * factor }
    case 'line': {
      const middle = between(mask, { x: mask.toX, y: mask.toY })
      const end = (x: number, y: number): Place => ({
        x: middle.x + (x - middle.x) * factor + by.x,
        y: middle.y + (y - middle.y) * factor + by.y,
      })
      const [from, to] = [end(mask.x, mask.y), end(mask.toX, mask.toY)]
      return { ...from, toX: to.x, toY: to.y, follows: null }
    }
    case 'outline':
    case 'brush':
    case 'sky':
      return {}
  }
}
