import { z } from 'zod'
import { effectSchema } from '../effects/registry'

export const SCENE_VERSION = 1

/** A photo as a scene knows it; its file lies beside the scenes. */
const photoReference = z.strictObject({
  id: z.string().min(1),
  fileName: z.string(),
  width: z.int().min(1),
  height: z.int().min(1),
})

/** The document: one photo with its effects, from far to near. */
export const sceneSchema = z.strictObject({
  format: z.literal('welkinar-scene'),
  version: z.literal(SCENE_VERSION),
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  created: z.number(),
  edited: z.number(),
  photo: photoReference,
  effects: z.array(effectSchema).max(200),
})
export type Scene = z.infer<typeof sceneSchema>
export type PhotoReference = Scene['photo']
