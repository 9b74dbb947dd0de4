import { z } from 'zod'
import { depthSchema } from './depth'
import { groundworkSchema, noGroundwork, type Groundwork } from './groundwork'
import { fitLengths, fitBetween } from './lengths'
import { marksSchema, type SceneMarks } from './marks'
import { parseDocument } from './parseDocument'
import type { Size } from '../planes/grid'
import { versionShape } from './version'

const depthFileSchema = depthSchema.omit({ picture: true }).extend({
  /** Name of the depth picture, in the folder of this file. */
  file: z
    .string()
    .min(1)
    .regex(/^[^/\\]*[^/\\.][^/\\]*$/, 'expected the name of a file in the same folder'),
})

/** What was read from a photo, for use beside its recipe: the marks, and the depth picture by its file name. */
export const marksFileSchema = z.strictObject({
  format: z.literal('welkinar-marks'),
  ...versionShape,
  madeFor: z.strictObject({ width: z.int().min(1), height: z.int().min(1) }),
  marks: marksSchema,
  /** What is done to the photo before the recipe. */
  groundwork: groundworkSchema.default(noGroundwork),
  depth: depthFileSchema.nullable(),
})
export type MarksFile = z.infer<typeof marksFileSchema>

/** @throws UserProblem naming the file, the path of the wrong value and what was expected */
export function parseMarks(text: string, fileName: string): MarksFile {
  return parseDocument(text, fileName, marksFileSchema, 'marks file')
}

/** The marks, fitted to a photo that may have another size. */
export function marksFor({ marks, madeFor }: MarksFile, photo: Size): SceneMarks {
  return fitLengths(marksSchema, marks, fitBetween(madeFor, photo))
}

/** What is done to the photo, fitted to one that may have another size. */
export function groundworkFor({ groundwork, madeFor }: MarksFile, photo: Size): Groundwork {
  return fitLengths(groundworkSchema, groundwork, fitBetween(madeFor, photo))
}
