import { z } from 'zod'
import { cornerSchema } from './corner'
import { levelSchema, type LevelMark } from './level'
import { readingSchema } from './reading'
import { idOf, listOf, referenceTo } from './roles'
import { hexColour, lengthControl, numberControl, percentControl, placeControl } from './controls'

export const lightSchema = z.strictObject({
  id: idOf('light'),
  name: z.string().min(1).max(80),
  x: placeControl('x'),
  y: placeControl('y'),
  colour: hexColour,
  strength: percentControl('Strength'),
  radius: lengthControl({ label: 'Radius', usual: [0, 600], hard: [0, 20000], step: 1, hint: 'How far the light itself reaches.' }),
})
/** A place that light comes from; it may lie outside the frame. */
export type LightMark = z.infer<typeof lightSchema>

const focalSchema = z.strictObject({ x: placeControl('x'), y: placeControl('y') })

/** The camera over level ground, which with the horizon gives distances. */
export const groundSchema = z.strictObject({
  cameraHeight: numberControl({ label: 'Eye height', unit: 'm', usual: [0.3, 30], hard: [0.01, 5000], step: 0.1 }),
  focalLength: numberControl({
    label: 'Focal length',
    unit: 'mm',
    usual: [14, 135],
    hard: [4, 1200],
    step: 1,
    hint: 'For a frame 36 mm wide.',
  }),
})

/** Distances read from haze that is in the photo already. */
export const hazeMarkSchema = z.strictObject({
  visibility: numberControl({
    label: 'Visibility',
    unit: 'm',
    usual: [100, 20000],
    hard: [1, 1000000],
    step: 50,
    hint: 'How far one could see when the photo was taken.',
  }),
  air: percentControl('Air brightness', 'How bright the haze is where it is thickest.'),
})

/** Something outlined, at one distance. */
export const regionSchema = z.strictObject({
  id: idOf('region'),
  name: z.string().min(1).max(80),
  distance: numberControl({ label: 'Distance', unit: 'm', usual: [0.5, 200], hard: [0.05, 100000], step: 0.5 }),
  softness: lengthControl({ label: 'Feather', usual: [0, 40], hard: [0, 2000], step: 0.5 }),
  corners: listOf(cornerSchema, 2000, 'corners', 3),
})
export type RegionMark = z.infer<typeof regionSchema>

const ground = { cameraHeight: 1.7, focalLength: 28 }

/** What the artist has read from the scene: effects and masks follow it. */
export const marksSchema = z.strictObject({
  lights: listOf(lightSchema, 24, 'lights'),
  horizon: levelSchema.nullable(),
  waterline: levelSchema.nullable(),
  focal: focalSchema.nullable(),
  ground: groundSchema.default(ground),
  haze: hazeMarkSchema.nullable().default(null),
  regions: listOf(regionSchema, 60, 'regions').default([]),
  /** Nothing in scenes that are older than readings, and whose photo was not read since. */
  reading: readingSchema.nullable().default(null),
})
export type SceneMarks = z.infer<typeof marksSchema>

export const noMarks: SceneMarks = {
  lights: [],
  horizon: null,
  waterline: null,
  focal: null,
  ground,
  haze: null,
  regions: [],
  reading: null,
}

/** What a mask with a centre can follow: nothing, the focal point, or a light by its id. */
export const followsPoint = referenceTo('light')
/** What a mask along a line can follow. */
export const followsLevel = z.enum(['horizon', 'waterline']).nullable()

export const FOCAL_POINT = 'focal point'

interface Point {
  readonly x: number
  readonly y: number
}

/** The place of a mark that is followed; undefined if there is none of it. A light that is gone is replaced by the first one. */
export function markedPoint(marks: SceneMarks, follows: string | null): Point | undefined {
  if (follows === null) return undefined
  if (follows === FOCAL_POINT) return marks.focal ?? undefined
  return lightOf(marks, follows)
}

/** The light with this id, or the first one there is. */
export function lightOf(marks: SceneMarks, id: string | null): LightMark | undefined {
  if (id === null) return undefined
  return marks.lights.find((light) => light.id === id) ?? marks.lights[0]
}

/** The horizon: as it was marked by hand, or else as it was read. */
export function horizonOf(marks: SceneMarks): LevelMark | null {
  return marks.horizon ?? marks.reading?.horizon ?? null
}

/** Where water begins: as it was marked by hand, or else as it was read. */
export function waterlineOf(marks: SceneMarks): LevelMark | null {
  return marks.waterline ?? marks.reading?.water ?? null
}

/**
 * The horizon, or where one is assumed. Nothing for a photo that was read and shows none: there effects draw no line. In scenes that are older than readings it is assumed in the
 * middle, as it was when they were made.
 */
export function assumedHorizon(marks: SceneMarks, photo: { readonly height: number }): LevelMark | undefined {
  return horizonOf(marks) ?? (marks.reading ? undefined : { y: photo.height / 2, turn: 0 })
}
