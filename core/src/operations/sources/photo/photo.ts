import { reducePlane } from '../../../planes/reduce'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation, RunContext } from '../../../graph/operation'
import { loadLevelRows } from '../../../photo/loadLevelRows'
import type { PhotoLevel } from '../../../photo/photoData'
import { clampInto, type Rect } from '../../../planes/rect'

type PhotoParameters = { readonly photo: string }

/** The photo itself, reduced to the grid by area means in linear light. */
export const photo: Operation<PhotoParameters> = {
  name: 'photo',
  run(context, params, _inputs, rect) {
    const { levels, ...size } = context.photo(params.photo)
    // A picture of another size than the scene's photo is stretched over the same grid.
    const pitchX = size.width / context.grid.width
    const pitchY = size.height / context.grid.height
    if (pitchX < 1 || pitchY < 1) return { kind: 'tones', rect, planes: enlarged(context, levels[0], rect, pitchX, pitchY) }
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

/** A picture smaller than the grid, read bilinearly. */
function enlarged(context: RunContext, level: PhotoLevel | undefined, rect: Rect, stepX: number, stepY: number): number[] {
  if (!level) throw new Error('The picture has no level 0.')
  const { kernels, scratch } = context
  const wide = { x: Math.floor(rect.x * stepX) - 1, y: Math.floor(rect.y * stepY) - 1, width: 0, height: 0 }
  const bounds = { x: 0, y: 0, width: level.width, height: level.height }
  const reach = { width: Math.ceil(rect.width * stepX) + 4, height: Math.ceil(rect.height * stepY) + 4 }
  const from = clampInto({ ...wide, ...reach }, bounds)
  const at = (first: number, step: number, origin: number): number => (first + 0.5) * step - 0.5 - origin
  const [x, y] = [at(rect.x, stepX, from.x), at(rect.y, stepY, from.y)]
  return loadLevelRows(kernels, scratch, level, from).map((plane) => {
    const out = context.plane(rect.width * rect.height)
    kernels.placePlane(plane, from.width, from.height, out, rect.width, rect.height, stepX, 0, x, 0, stepY, y)
    return out
  })
}

/** Node of the photo with the given id. */
export function photoNode(id: string): GraphNode {
  return graphNode('photo', { photo: id })
}

function copyPixels(context: RunContext, level: PhotoLevel, rect: Rect): number[] {
  const { kernels, scratch } = context
  const planes = loadLevelRows(kernels, scratch, level, rect, (bytes) => context.plane(bytes / 4))
  if (level.format === 'linear16') for (const plane of planes) kernels.encodePlane(plane, plane, rect.width * rect.height)
  return planes
}

function areaMeans(context: RunContext, level: PhotoLevel, rect: Rect, stepX: number, stepY: number): number[] {
  const { kernels, scratch } = context
  const x = Math.floor(rect.x * stepX)
  const y = Math.floor(rect.y * stepY)
  const width = Math.ceil((rect.x + rect.width) * stepX) - x
  const height = Math.ceil((rect.y + rect.height) * stepY) - y
  const from = { x, y, width, height }
  return loadLevelRows(kernels, scratch, level, from).map((plane) => {
    const own = context.plane(rect.width * rect.height)
    if (level.format !== 'linear16') kernels.decodePlane(plane, plane, width * height)
    reducePlane(kernels, scratch, plane, from, rect, { x: stepX, y: stepY }, own)
    kernels.encodePlane(own, own, rect.width * rect.height)
    return own
  })
}
