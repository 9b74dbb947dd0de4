import { z } from 'zod'
import { pictureReference } from '../masks/picture/definition'
import { depthSchema } from './depth'
import { marksSchema } from './marks'
import { stackShape } from './stack'

export const SCENE_VERSION = 2

/** The document: one photo with what the artist has read from it, and the stack laid over it. */
export const sceneSchema = z.strictObject({
  format: z.literal('welkinar-scene'),
  version: z.literal(SCENE_VERSION),
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  created: z.number(),
  edited: z.number(),
  /** The photo; its file lies beside the scenes. */
  photo: pictureReference,
  marks: marksSchema,
  depth: depthSchema.nullable(),
  ...stackShape,
})
export type Scene = z.infer<typeof sceneSchema>
export type PhotoReference = Scene['photo']
