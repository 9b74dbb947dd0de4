import { at, type SmallPhoto } from './smallPhoto'

/** A light is so much brighter than the middle of what is around it: more so where no sky is seen, since much else shines there. */
const BRIGHTER = { sky: 1.25, elsewhere: 1.8 }
const LEAST_LIGHT = { sky: 0.35, elsewhere: 0.7 }
/** What is nearly as bright as it takes no more than this part of the photo: a white sky is no light. */
const MOST_PART = 0.12
const NEARLY = 0.9
/** Half the window over which brightness is meant, as a part of the width. */
const REACH = 0.02

/**
 * The light that a photo is lit by, if one is seen: the brightest place, a little blurred, if it stands out and is not all of the sky. As parts of width and height.
 * Common practice; no source.
 * @param over the rows down to which it is looked for, by the column, where there is a sky; else it is looked for everywhere
 */
export function readLight(
  photo: SmallPhoto,
  over: ((x: number) => number) | undefined,
): { readonly x: number; readonly y: number } | undefined {
  const { width, height, light } = photo
  const reach = Math.max(1, Math.round(REACH * width))
  const mean = boxMean(light, width, height, reach)
  const kind = over ? 'sky' : 'elsewhere'
  const places = [...mean.keys()].filter((i) => !over || Math.floor(i / width) < over(i % width))
  const tones = places.map((i) => mean[i] ?? 0).sort((a, b) => a - b)
  const most = tones.at(-1) ?? 0
  const middle = tones[Math.floor(tones.length / 2)] ?? 0
  const near = places.filter((i) => (mean[i] ?? 0) > NEARLY * most)
  if (most < LEAST_LIGHT[kind] || most < BRIGHTER[kind] * middle || near.length > MOST_PART * width * height) return undefined
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
