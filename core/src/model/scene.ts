import { z } from 'zod'
import { pictureReference } from '../masks/picture/definition'
import { depthSchema } from './depth'
import { groundworkSchema, noGroundwork } from './groundwork'
import { marksSchema, noMarks } from './marks'
import { picturesIn, withoutPictures } from './pictures'
import { listOf } from './roles'
import { stackAmount, stackShape } from './stack'
import { versionShape } from './version'
import { watchpointSchema } from './watchpoint'

/** The document: one photo with what the artist has read from it, and the stack laid over it. */
export const sceneSchema = z.strictObject({
  format: z.literal('welkinar-scene'),
  ...versionShape,
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  created: z.number(),
  edited: z.number(),
  /** The photo; its file lies beside the scenes. */
  photo: pictureReference,
  /** Nothing is done to it in scenes that are older than groundwork. */
  groundwork: groundworkSchema.default(noGroundwork),
  marks: marksSchema,
  depth: depthSchema.nullable(),
  watchpoints: listOf(watchpointSchema, 12, 'watchpoints').default([]),
  amount: stackAmount.default(100),
  ...stackShape,
})
export type Scene = z.infer<typeof sceneSchema>
const besidesThePhoto = sceneSchema.omit({ photo: true })

/** What belongs to a photo with which nothing was done yet. */
export const untouched = { marks: noMarks, groundwork: noGroundwork, depth: null, watchpoints: [], amount: 100 } satisfies Partial<Scene>

export type PhotoReference = Scene['photo']

/** The pictures that a scene reads besides its photo. */
export function picturesOfScene(scene: Scene): PhotoReference[] {
  return picturesIn(sceneSchema, scene).filter(({ id }) => id !== scene.photo.id)
}

/** The scene without some of those pictures. */
export function sceneWithout({ photo, ...rest }: Scene, gone: readonly string[]): Scene {
  return { ...withoutPictures(besidesThePhoto, rest, gone), photo }
}
