import { graphNode, type GraphNode } from '../../../graph/node'
import type { Kernels, Operation } from '../../../graph/operation'
import type { PhotoData } from '../../../photo/photoData'
import { inputAt, plane } from '../../plane'
import { fitSky, type SkyModel } from './skyModel'

export type SkyParameters = {
  readonly photoId: string
  /** A place on the horizon, photo px, and its slope, degrees counter-clockwise. */
  readonly x: number
  readonly y: number
  readonly turn: number
  /** How far a place may differ from the sky around it and still be sky, as a part of white, in roots of linear light. */
  readonly tolerance: number
}

/** Skies that were fitted in this thread: a photo has one for each horizon, and every tile asks for it. */
const known = new WeakMap<PhotoData, Map<string, SkyModel>>()

function skyOf(kernels: Kernels, photo: PhotoData, { x, y, turn }: SkyParameters, up: readonly [number, number]): SkyModel {
  const models = known.get(photo) ?? new Map<string, SkyModel>()
  known.set(photo, models)
  const key = `${x} ${y} ${turn}`
  const model = models.get(key) ?? fitSky(kernels, photo, { x, y, upX: up[0], upY: up[1] })
  models.set(key, model)
  return model
}

/** Open where the photo (input) is its own sky: above the horizon, and as the surface that fits the sky says it should look there. */
export const skyMask: Operation<SkyParameters> = {
  name: 'skyMask',
  run(context, params, inputs, rect) {
    const { kernels, grid } = context
    const photo = context.photo(params.photoId)
    const radians = (params.turn * Math.PI) / 180
    const up = [-kernels.sine(radians), -kernels.cosine(radians)] as const
    const model = skyOf(kernels, photo, params, up)
    const coefficients = context.scratch(36 * 4)
    new Float32Array(kernels.memory.buffer, coefficients, 36).set(model.flat())
    const tones = inputAt(inputs, 0)
    const out = context.plane(rect.width * rect.height)
    kernels.skyMask(
      ...([plane(tones, 0), plane(tones, 1), plane(tones, 2), rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY] as const),
      ...([coefficients, photo.width, photo.height, params.x, params.y, ...up, params.tolerance, out] as const),
    )
    return { kind: 'mask', rect, planes: [out] }
  },
}

export function skyMaskNode(tones: GraphNode, params: SkyParameters): GraphNode {
  return graphNode('skyMask', params, [tones])
}
