import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Kernels, Operation } from '../../../graph/operation'
import type { PhotoData } from '../../../photo/photoData'
import { withScratch } from '../../../planes/scratch'
import { airLightOf, enlarged, pitchOfAir, type AirLight } from './airLight'

/** The light in the air of a scene as a layer: red, green, blue in linear light, and their luminance. */
export const sceneLight: Operation<AirLight> = {
  name: 'sceneLight',
  pitch: pitchOfAir,
  run(context, air, _inputs, rect) {
    const photo = context.photo(air.photoId)
    const light = airLightOf(context.kernels, photo, air)
    return { kind: 'layer', rect, planes: light.planes.map((values) => enlarged(context, photo, light, values, rect)) }
  },
}

export function sceneLightNode(air: AirLight): GraphNode {
  return graphNode('sceneLight', air)
}

/** Only how bright it is, as a field. */
export const sceneBrightness: Operation<AirLight> = {
  name: 'sceneBrightness',
  pitch: pitchOfAir,
  run(context, air, _inputs, rect) {
    const photo = context.photo(air.photoId)
    const light = airLightOf(context.kernels, photo, air)
    return { kind: 'field', rect, planes: [enlarged(context, photo, light, light.planes[3] ?? new Float32Array(0), rect)] }
  },
}

export function sceneBrightnessNode(air: AirLight): GraphNode {
  return graphNode('sceneBrightness', air)
}

const MOST_TINTS = 24

type TintParameters = {
  readonly air: AirLight
  /** sRGB-encoded. */
  readonly colour: Rgb
  /** 0-1: how much of the light's colour is taken. */
  readonly part: number
}

/** Tinted colours of this thread: every tile asks for the same ones. */
const known = new WeakMap<PhotoData, Map<string, readonly Float32Array[]>>()

function tintedIn(kernels: Kernels, photo: PhotoData, params: TintParameters): readonly Float32Array[] {
  const ofPhoto = known.get(photo) ?? new Map<string, readonly Float32Array[]>()
  known.set(photo, ofPhoto)
  const key = JSON.stringify(params)
  const found = ofPhoto.get(key) ?? tint(kernels, photo, params)
  // A colour that is dragged leaves many behind it.
  if (ofPhoto.size > MOST_TINTS) ofPhoto.clear()
  ofPhoto.set(key, found)
  return found
}

function tint(kernels: Kernels, photo: PhotoData, { air, colour, part }: TintParameters): Float32Array[] {
  const light = airLightOf(kernels, photo, air)
  const count = light.width * light.height
  return [0, 1, 2].map((channel) =>
    withScratch(kernels, (scratch) => {
      const [own, lit, luminance] = [0, 1, 2].map(() => scratch(count * 4 + 16)) as [number, number, number]
      kernels.fill(own, count, colour[channel] ?? 0)
      kernels.decodePlane(own, own, count)
      new Float32Array(kernels.memory.buffer, lit, count).set(light.planes[channel] ?? [])
      new Float32Array(kernels.memory.buffer, luminance, count).set(light.planes[3] ?? [])
      kernels.tintPlane(own, lit, luminance, part, count, own)
      kernels.encodePlane(own, own, count)
      return new Float32Array(kernels.memory.buffer, own, count).slice()
    }),
  )
}

/** One colour as it looks everywhere in that light, as tones: made on the small grid, since nothing in it is fine. */
export const tintInLight: Operation<TintParameters> = {
  name: 'tintInLight',
  pitch: ({ air }) => pitchOfAir(air),
  run(context, { air, colour, part }, _inputs, rect) {
    const { kernels } = context
    const photo = context.photo(air.photoId)
    const light = airLightOf(kernels, photo, air)
    const tinted = tintedIn(kernels, photo, { air, colour, part })
    const planes = tinted.map((values) => enlarged(context, photo, light, values, rect))
    return { kind: 'tones', rect, planes }
  },
}

export function tintInLightNode(params: TintParameters): GraphNode {
  return graphNode('tintInLight', params)
}
