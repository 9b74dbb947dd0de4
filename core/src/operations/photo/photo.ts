import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation, RunContext } from '../../graph/operation'
import { loadLevelRows } from '../../photo/loadLevelRows'
import type { PhotoLevel } from '../../photo/photoData'
import type { Rect } from '../../planes/rect'

type PhotoParameters = { readonly photo: string }

/** The photo itself, reduced to the grid by area means in linear light. */
export const photo: Operation<PhotoParameters> = {
  name: 'photo',
  run(context, params, _inputs, rect) {
    const { levels } = context.photo(params.photo)
    const { pitchX, pitchY } = context.grid
    const pitch = Math.min(pitchX, pitchY)
    const index = Math.min(levels.length - 1, Math.floor(Math.log2(pitch) + 1e-9))
    const level = levels[index]
    if (!level) throw new Error(`The photo ${params.photo} has no level ${index}.`)
    const stepX = pitchX / 2 ** index
    const stepY = pitchY / 2 ** index
    const exact = Math.abs(stepX - 1) < 1e-9 && Math.abs(stepY - 1) < 1e-9
    const planes = exact ? copyPixels(context, level, rect) : areaMeans(context, level, rect, stepX, stepY)
    return { kind: 'tones', rect, planes }
  },
}

/** Node of the photo with the given id. */
export function photoNode(id: string): GraphNode {
  return graphNode('photo', { photo: id })
}

function copyPixels(context: RunContext, level: PhotoLevel, rect: Rect): number[] {
  const count = rect.width * rect.height
  return loadLevelRows(context.kernels, context.scratch, level, rect).map((plane) => {
    const own = context.plane(count)
    context.kernels.copyExtended(plane, rect.width, rect.height, 0, 0, own, rect.width, rect.height)
    return own
  })
}

function areaMeans(context: RunContext, level: PhotoLevel, rect: Rect, stepX: number, stepY: number): number[] {
  const { kernels, scratch } = context
  const x = Math.floor(rect.x * stepX)
  const y = Math.floor(rect.y * stepY)
  const width = Math.ceil((rect.x + rect.width) * stepX) - x
  const height = Math.ceil((rect.y + rect.height) * stepY) - y
  const planes = loadLevelRows(kernels, scratch, level, { x, y, width, height })
  return planes.map((plane) => {
    const narrowed = scratch(rect.width * height * 4)
    const own = context.plane(rect.width * rect.height)
    kernels.decodePlane(plane, plane, width * height)
    kernels.areaRows(plane, width, height, x, stepX, rect.x, narrowed, rect.width)
    kernels.areaColumns(narrowed, rect.width, height, y, stepY, rect.y, own, rect.height)
    kernels.encodePlane(own, own, rect.width * rect.height)
    return own
  })
}
