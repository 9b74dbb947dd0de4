import { linearOf, type Rgb } from '../../../colour/hex'
import type { Kernels, RunContext } from '../../../graph/operation'
import { coarsePlanes } from '../../../photo/coarsePlanes'
import type { PhotoData } from '../../../photo/photoData'
import type { Rect } from '../../../planes/rect'
import { withScratch } from '../../../planes/scratch'
import { blurPlane } from '../../blurs/gaussianBlur/blurPlane'

/** A light of the scene as it glows into the air. Lengths in photo px. */
type Glow = {
  readonly x: number
  readonly y: number
  /** Standard deviation. */
  readonly sigma: number
  readonly strength: number
  /** sRGB-encoded. */
  readonly colour: Rgb
}

/** The light in the air of a scene. */
export type AirLight = {
  readonly photoId: string
  /** Standard deviation of the blur of the photo, photo px. */
  readonly sigma: number
  readonly glows: readonly Glow[]
}

/** Red, green, blue in linear light and their luminance, on a small grid: nothing in them is fine. */
interface CoarseLight {
  readonly width: number
  readonly height: number
  readonly planes: readonly Float32Array[]
}

const LARGEST_SIDE = 400
const PIXELS_OF_SIGMA = 4
const MOST_LIGHTS = 12

/** Lights of this thread; every tile asks for the same one. */
const known = new WeakMap<PhotoData, Map<string, CoarseLight>>()

/** The photo, widely blurred in linear light at one small reduction, and what the lights of the scene add. It is the same at every scale. */
export function airLightOf(kernels: Kernels, photo: PhotoData, air: AirLight): CoarseLight {
  const ofPhoto = known.get(photo) ?? new Map<string, CoarseLight>()
  known.set(photo, ofPhoto)
  const key = JSON.stringify(air)
  const found = ofPhoto.get(key) ?? compute(kernels, photo, air)
  // A light that is dragged leaves many behind it.
  if (ofPhoto.size > MOST_LIGHTS) ofPhoto.clear()
  ofPhoto.set(key, found)
  return found
}

function compute(kernels: Kernels, photo: PhotoData, { sigma, glows }: AirLight): CoarseLight {
  const { width, height, planes } = coarsePlanes(kernels, photo, LARGEST_SIDE)
  const rect = { x: 0, y: 0, width, height }
  const [pitchX, pitchY] = [photo.width / width, photo.height / height]
  const count = width * height
  return withScratch(kernels, (scratch) => {
    const light = planes.map((values, channel) => {
      const [from, to] = [scratch(count * 4), scratch(count * 4 + 16)]
      new Float32Array(kernels.memory.buffer, from, count).set(values)
      blurPlane(kernels, from, rect, rect, sigma / pitchX, to)
      for (const glow of glows) {
        const strength = glow.strength * (linearOf(glow.colour)[channel] ?? 0)
        kernels.addGlow(to, 0, 0, width, height, pitchX, pitchY, glow.x, glow.y, Math.max(pitchX, glow.sigma), strength)
      }
      return to
    })
    const luminance = scratch(count * 4 + 16)
    const [red = 0, green = 0, blue = 0] = light
    kernels.luminancePlane(red, green, blue, count, luminance)
    const taken = [...light, luminance].map((address) => new Float32Array(kernels.memory.buffer, address, count).slice())
    return { width, height, planes: taken }
  })
}

/** The light in the air is a blur and some glows: as smooth as the narrowest of them. Photo px. */
export function pitchOfAir({ sigma, glows }: AirLight): number {
  return Math.min(sigma, ...glows.map((glow) => glow.sigma)) / PIXELS_OF_SIGMA
}

/** A small plane over the whole photo, read bilinearly on a rectangle of the grid. */
export function enlarged(context: RunContext, photo: PhotoData, light: CoarseLight, values: Float32Array, rect: Rect): number {
  const { kernels, grid } = context
  const { width, height } = light
  const source = context.scratch(values.byteLength)
  new Float32Array(kernels.memory.buffer, source, values.length).set(values)
  const out = context.plane(rect.width * rect.height)
  const [scaleX, scaleY] = [(grid.pitchX * width) / photo.width, (grid.pitchY * height) / photo.height]
  const [offsetX, offsetY] = [(rect.x + 0.5) * scaleX - 0.5, (rect.y + 0.5) * scaleY - 0.5]
  kernels.placePlane(source, width, height, out, rect.width, rect.height, scaleX, 0, offsetX, 0, scaleY, offsetY)
  return out
}
