import { readDistance } from './readDistance'
import { heightOf, levelLines, skyEnds, SURE_ALONE, surestOf, type ReadHorizon } from './readHorizon'
import { mirroredSkyline } from './mirroredSkyline'
import { lightBeyond } from './lightBeyond'
import { readLight, type Place } from './readLight'
import { readSky, skyOver } from './readSky'
import { isWater } from './readWater'
import type { SmallPhoto } from './smallPhoto'
import { allAtOnce, type Steps } from './steps'
import { wetGround } from './wetGround'

/** What a small photo shows: where its sky is, its horizon if that is seen, and how far everything is. */
export interface ReadScene {
  readonly sky: Uint8Array | undefined
  readonly horizon: ReadHorizon | undefined
  readonly light: Place | undefined
  /** Where water begins, or ground that is wet. */
  readonly water: Pick<ReadHorizon, 'y' | 'turn'> | undefined
  /** Codes of `codeOf`, row by row. */
  readonly distance: Uint8Array
}

/** What lies between a sky and a horizon is cloud if it is so bright, against the sky. */
const BRIGHT_AS_CLOUD = 0.85

/** Reads sky, horizon and distances of a photo; each helps to find the next. */
export function readScene(photo: SmallPhoto): ReadScene {
  return allAtOnce(sceneSteps(photo))
}

/** The same step by step. */
export function* sceneSteps(photo: SmallPhoto): Steps<ReadScene> {
  yield
  const open = yield* readSky(photo)
  yield
  const mirrored = open && mirroredSkyline(photo, open)
  yield
  if (open && mirrored) return yield* withRest(photo, withGlow(photo, open, mirrored), mirrored)
  const lines = levelLines(photo)
  yield
  const found = surestOf(lines, photo, open)
  yield
  if (open && found) return yield* withRest(photo, withGlow(photo, open, found), found)
  // A line that is very sure by itself, or one under a sky that clouds break up: what hangs over it is sky. Over one that is less sure a sky is seen, but no horizon claimed.
  const alone = found ?? surestOf(lines, photo, undefined)
  yield
  if (!alone) return yield* withRest(photo, open, undefined)
  const holds =
    (alone.sureness > SURE_ALONE && (open !== undefined || isLighterAbove(photo, heightOf(alone, photo)))) ||
    (open !== undefined && isBrokenUp(photo, open, heightOf(alone, photo)))
  return yield* withRest(photo, holds || !open ? skyOver(photo, heightOf(alone, photo)) : open, holds ? alone : undefined)
}

/** Whether it is lighter over a line than under it: with no sky to be seen, a line with what is dark above is a shore or an edge that one looks down on. */
function isLighterAbove({ width, light }: SmallPhoto, lineAt: (x: number) => number): boolean {
  let [over, overCount, under, underCount] = [0, 0, 0, 0]
  light.forEach((value, i) => {
    if (Math.floor(i / width) < lineAt(i % width)) {
      over += value
      overCount++
    } else {
      under += value
      underCount++
    }
  })
  return over * underCount > under * overCount
}

/** Whether what lies between a sky and a line under it is as bright as the sky, and the sky ends there. */
function isBrokenUp({ width, light }: SmallPhoto, sky: Uint8Array, lineAt: (x: number) => number): boolean {
  let [inSky, count, between, others, below] = [0, 0, 0, 0, 0]
  sky.forEach((value, i) => {
    const over = Math.floor(i / width) < lineAt(i % width)
    if (value) {
      inSky += light[i] ?? 0
      count++
      if (!over) below++
    } else if (over) {
      between += light[i] ?? 0
      others++
    }
  })
  return below < 0.05 * count && others > 0 && between / others > BRIGHT_AS_CLOUD * (inSky / Math.max(1, count))
}

/** The sky with what is brighter than it and hangs over the horizon: around the sun it is anything but even. */
function withGlow(photo: SmallPhoto, sky: Uint8Array, horizon: ReadHorizon): Uint8Array {
  const over = skyOver(photo, heightOf(horizon, photo))
  let [sum, count] = [0, 0]
  sky.forEach((value, i) => {
    if (!value) return
    sum += photo.light[i] ?? 0
    count++
  })
  return sky.map((value, i) => (value || (over[i] && (photo.light[i] ?? 0) * count >= sum) ? 1 : 0))
}

/** Of the width or height: so near to a border the brightest of a sky is only where it comes nearest to a light beyond. */
const AT_BORDER = 0.08

function lightOf(inFrame: Place | undefined, beyond: Place | undefined): Place | undefined {
  if (!inFrame || !beyond) return inFrame ?? beyond
  const off = beyond.y < 0 ? inFrame.y : beyond.x > 1 ? 1 - inFrame.x : inFrame.x
  return off < AT_BORDER ? beyond : inFrame
}

function* withRest(photo: SmallPhoto, sky: Uint8Array | undefined, horizon: ReadHorizon | undefined): Steps<ReadScene> {
  yield
  const lowest = sky && Math.max(...skyEnds(sky, photo.width, photo.height))
  const over = horizon ? heightOf(horizon, photo) : lowest === undefined ? undefined : () => lowest
  const light = lightOf(readLight(photo, over), sky && lightBeyond(photo, sky))
  yield
  const bed = horizon && isWater(photo, horizon) ? horizon : undefined
  const water = bed ?? wetGround(photo)
  yield
  return { sky, horizon, light, water, distance: readDistance(photo, sky, horizon, bed !== undefined) }
}
