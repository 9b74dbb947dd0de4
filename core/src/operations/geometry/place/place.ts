import { graphNode, type GraphNode } from '../../../graph/node'
import type { Kernels, Operation } from '../../../graph/operation'
import type { Grid } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { inputAt } from '../../plane'

export type PlaceParameters = {
  /** Factor; 2 shows everything twice as large. */
  readonly enlarge: number
  /** Factors across and down besides, before it is turned. */
  readonly wide?: number
  readonly high?: number
  /** Degrees counter-clockwise. */
  readonly turn: number
  /** Photo px. */
  readonly moveX: number
  readonly moveY: number
  /** The fixed point of enlarging and turning, photo px. */
  readonly centreX: number
  readonly centreY: number
  /** Read by a cubic, which keeps it sharp; else bilinearly. */
  readonly sharp?: true
  /** The only channel that is wanted; the others are black. */
  readonly only?: 0 | 1 | 2
}

/** Row by row the 2 by 3 matrix that takes a pixel centre of the result to the place it is read from. */
type Matrix = readonly [number, number, number, number, number, number]

/** Moves, enlarges and turns a picture; its border repeats outside. */
export const place: Operation<PlaceParameters> = {
  name: 'place',
  need(params, rect, grid, kernels) {
    return readRect(inverse(params, grid, kernels), rect, params.sharp ? 2 : 1)
  },
  run(context, params, inputs, rect) {
    const input = inputAt(inputs, 0)
    const [a, b, c, d, e, f] = inverse(params, context.grid, context.kernels)
    const offsetX = a * rect.x + b * rect.y + c - input.rect.x
    const offsetY = d * rect.x + e * rect.y + f - input.rect.y
    const { kernels } = context
    const lay = params.sharp ? kernels.placePlaneCubic : kernels.placePlane
    const planes = input.planes.map((source, channel) => {
      const out = context.plane(rect.width * rect.height)
      const { width, height } = input.rect
      if (params.only !== undefined && channel !== params.only) kernels.fill(out, rect.width * rect.height, 0)
      else lay(source, width, height, out, rect.width, rect.height, a, b, offsetX, d, e, offsetY)
      return out
    })
    return { kind: input.kind, rect, planes }
  },
}

/** `input` placed anew, or `input` itself when nothing moves. */
export function placeNode(input: GraphNode, params: PlaceParameters): GraphNode {
  const { wide = 1, high = 1 } = params
  const still = wide === 1 && high === 1 && params.enlarge === 1 && params.turn === 0 && params.moveX === 0 && params.moveY === 0
  return still ? input : graphNode('place', params, [input])
}

function inverse(params: PlaceParameters, grid: Grid, kernels: Kernels): Matrix {
  const radians = (params.turn * Math.PI) / 180
  const cos = kernels.cosine(radians) / params.enlarge
  const sin = kernels.sine(radians) / params.enlarge
  const { wide = 1, high = 1 } = params
  const { pitchX, pitchY } = grid
  const ratio = pitchY / pitchX
  // Photo px: source = centre + turned back (result - centre - move) / enlarge; y points down.
  const shiftX = 0.5 * pitchX - params.centreX - params.moveX
  const shiftY = 0.5 * pitchY - params.centreY - params.moveY
  return [
    cos / wide,
    (-sin * ratio) / wide,
    (params.centreX + (cos * shiftX - sin * shiftY) / wide) / pitchX - 0.5,
    sin / ratio / high,
    cos / high,
    (params.centreY + (sin * shiftX + cos * shiftY) / high) / pitchY - 0.5,
  ]
}

/** @param reach px that are read about a place */
function readRect([a, b, c, d, e, f]: Matrix, rect: Rect, reach: number): Rect {
  const corners = [rect.x, rect.x + rect.width - 1].flatMap((x) =>
    [rect.y, rect.y + rect.height - 1].map((y) => ({ x: a * x + b * y + c, y: d * x + e * y + f })),
  )
  const x = Math.floor(Math.min(...corners.map((corner) => corner.x))) - reach
  const y = Math.floor(Math.min(...corners.map((corner) => corner.y))) - reach
  const right = Math.ceil(Math.max(...corners.map((corner) => corner.x))) + reach + 1
  const bottom = Math.ceil(Math.max(...corners.map((corner) => corner.y))) + reach + 1
  return { x, y, width: right - x, height: bottom - y }
}
