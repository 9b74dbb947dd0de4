import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { loadLevelRows } from '../../../photo/loadLevelRows'
import type { PhotoData, PhotoLevel } from '../../../photo/photoData'
import type { Grid } from '../../../planes/grid'
import type { Rect } from '../../../planes/rect'
import { reducePlane } from '../../../planes/reduce'

export type LaidPictureParameters = {
  readonly picture: string
  /** Its middle and its sides on the photo, photo px, and how far it is turned, degrees counter-clockwise. */
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly turn: number
  /** Seen from behind: left is right. */
  readonly flipped: boolean
}

/** Where a pixel covers more than one of the picture, it is the mean of so many places along each side. */
const FINER = 2
const COVERS_MORE = 1.01

/** Another picture laid on the photo, turned and in any size, as tones; its border repeats around it. Each pixel is a mean in linear light over what it covers of the picture. */
export const laidPicture: Operation<LaidPictureParameters> = {
  name: 'laidPicture',
  run(context, params, _inputs, rect) {
    const picture = context.photo(params.picture)
    const covered = coveredBy(picture, params, context.grid)
    const finer = covered > COVERS_MORE ? FINER : 1
    const { level, times } = levelFor(picture, covered / finer)
    const matrix = matrixFor(params, picture, { times, finer }, context)
    const fine = { x: finer * rect.x, y: finer * rect.y, width: finer * rect.width, height: finer * rect.height }
    const from = readRect(matrix, fine, level)
    const { kernels, scratch } = context
    const count = rect.width * rect.height
    const planes = loadLevelRows(kernels, scratch, level, from).map((source) => {
      if (level.format !== 'linear16') kernels.decodePlane(source, source, from.width * from.height)
      const [a, b, c, d, e, f] = matrix
      const [offsetX, offsetY] = [a * fine.x + b * fine.y + c - from.x, d * fine.x + e * fine.y + f - from.y]
      const out = context.plane(count)
      const laid = finer === 1 ? out : scratch(finer * finer * count * 4)
      kernels.placePlane(source, from.width, from.height, laid, fine.width, fine.height, a, b, offsetX, d, e, offsetY)
      if (finer > 1) {
        const [whole, half] = [
          { ...fine, x: 0, y: 0 },
          { ...rect, x: 0, y: 0 },
        ]
        reducePlane(kernels, scratch, laid, whole, half, { x: finer, y: finer }, out)
      }
      kernels.encodePlane(out, out, count)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

export function laidPictureNode(params: LaidPictureParameters): GraphNode {
  return graphNode('laidPicture', params)
}

/** How many pixels of the picture one of the grid covers, along the side on which it is fewer. */
function coveredBy(picture: PhotoData, { width, height }: LaidPictureParameters, { pitchX, pitchY }: Grid): number {
  return Math.min((pitchX * picture.width) / width, (pitchY * picture.height) / height)
}

/** The reduction of the picture of whose pixels a place covers about one, and how many times smaller than the picture it is. */
function levelFor(picture: PhotoData, covered: number): { readonly level: PhotoLevel; readonly times: number } {
  const index = Math.max(0, Math.min(picture.levels.length - 1, Math.floor(Math.log2(covered) + 0.5)))
  const level = picture.levels[index]
  if (!level) throw new Error(`The picture ${picture.id} has no pixels.`)
  return { level, times: 2 ** index }
}

/** Row by row the 2 by 3 matrix that takes a fine pixel to the place of the level that it is read from. */
type Matrix = readonly [number, number, number, number, number, number]

function matrixFor(
  { x, y, width, height, turn, flipped }: LaidPictureParameters,
  picture: PhotoData,
  { times, finer }: { readonly times: number; readonly finer: number },
  { grid, kernels }: RunContext,
): Matrix {
  const radians = (turn * Math.PI) / 180
  const [sin, cos] = [kernels.sine(radians), kernels.cosine(radians)]
  const [stepX, stepY] = [grid.pitchX / finer, grid.pitchY / finer]
  const across = ((flipped ? -1 : 1) * picture.width) / width / times
  const down = picture.height / height / times
  const [middleX, middleY] = [picture.width / 2 / times - 0.5, picture.height / 2 / times - 0.5]
  const [dx, dy] = [0.5 * stepX - x, 0.5 * stepY - y]
  return [
    across * cos * stepX,
    -across * sin * stepY,
    middleX + across * (cos * dx - sin * dy),
    down * sin * stepX,
    down * cos * stepY,
    middleY + down * (sin * dx + cos * dy),
  ]
}

/** What of a level is read for a rectangle of fine pixels. */
function readRect([a, b, c, d, e, f]: Matrix, rect: Rect, level: PhotoLevel): Rect {
  const corners = [0, 1].flatMap((i) =>
    [0, 1].map((j) => {
      const [x, y] = [rect.x + i * rect.width, rect.y + j * rect.height]
      return [a * x + b * y + c, d * x + e * y + f] as const
    }),
  )
  const span = (values: readonly number[], length: number): readonly [number, number] => {
    const first = Math.min(length - 1, Math.max(0, Math.floor(Math.min(...values)) - 1))
    const last = Math.min(length, Math.max(first + 1, Math.ceil(Math.max(...values)) + 2))
    return [first, last - first]
  }
  const [x, width] = span(
    corners.map(([u]) => u),
    level.width,
  )
  const [y, height] = span(
    corners.map(([, v]) => v),
    level.height,
  )
  return { x, y, width, height }
}
