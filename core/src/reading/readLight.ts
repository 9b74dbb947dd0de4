import { at, type SmallPhoto } from './smallPhoto'

/** A light is so much brighter than the middle of what is around it. */
const BRIGHTER = 1.25
/** What is nearly as bright as it takes no more than this part of the photo: a white sky is no light. */
const MOST_PART = 0.12
const NEARLY = 0.9
/** Half the window over which brightness is meant, as a part of the width. */
const REACH = 0.02

/**
 * The light that a photo is lit by, if one is seen: the brightest place, a little blurred, if it stands out and is not all of the sky. As parts of width and height.
 * Common practice; no source.
 * @param sky where it is looked for, if there is one; else anywhere
 */
export function readLight(photo: SmallPhoto, sky: Uint8Array | undefined): { readonly x: number; readonly y: number } | undefined {
  const { width, height, light } = photo
  const reach = Math.max(1, Math.round(REACH * width))
  const mean = boxMean(light, width, height, reach)
  const places = [...mean.keys()].filter((i) => !sky || sky[i])
  const tones = places.map((i) => mean[i] ?? 0).sort((a, b) => a - b)
  const most = tones.at(-1) ?? 0
  const middle = tones[Math.floor(tones.length / 2)] ?? 0
  const near = places.filter((i) => (mean[i] ?? 0) > NEARLY * most)
  if (most < 0.35 || most < BRIGHTER * middle || near.length > MOST_PART * width * height) return undefined
  let [x, y] = [0, 0]
  for (const i of near) {
    x += (i % width) + 0.5
    y += Math.floor(i / width) + 0.5
  }
  return { x: x / near.length / width, y: y / near.length / height }
}

/** Mean over a square about each pixel; the border repeats. */
function boxMean(plane: Float32Array, width: number, height: number, reach: number): Float32Array {
  const along = (from: ArrayLike<number>, dx: number, dy: number): Float32Array =>
    Float32Array.from({ length: width * height }, (_, i) => {
      let sum = 0
      for (let d = -reach; d <= reach; d++) sum += at(from, width, height, (i % width) + d * dx, Math.floor(i / width) + d * dy)
      return sum / (2 * reach + 1)
    })
  return along(along(plane, 1, 0), 0, 1)
}
