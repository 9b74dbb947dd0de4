import { z } from 'zod'
import { bandMaskKind, bandMaskSchema } from './band/definition'
import { brushMaskKind, brushMaskSchema } from './brush/definition'
import { cloudMaskKind, cloudMaskSchema } from './cloud/definition'
import { colourMaskKind, colourMaskSchema } from './colour/definition'
import { depthMaskKind, depthMaskSchema } from './depth/definition'
import { ellipseMaskKind, ellipseMaskSchema } from './ellipse/definition'
import { frameMaskKind, frameMaskSchema } from './frame/definition'
import { lineMaskKind, lineMaskSchema } from './line/definition'
import { luminosityMaskKind, luminosityMaskSchema } from './luminosity/definition'
import { optionFor } from '../model/walk'
import type { MaskDefinition } from './maskDefinition'
import { outlineMaskKind, outlineMaskSchema } from './outline/definition'
import { patternMaskKind, patternMaskSchema } from './pattern/definition'
import { pictureMaskKind, pictureMaskSchema } from './picture/definition'
import { sharedMaskKind, sharedMaskSchema } from './shared/definition'
import { skyMaskKind, skyMaskSchema } from './sky/definition'
import { similarMaskKind, similarMaskSchema } from './similar/definition'

export const maskSchema = z.discriminatedUnion('kind', [
  luminosityMaskSchema,
  skyMaskSchema,
  colourMaskSchema,
  ellipseMaskSchema,
  lineMaskSchema,
  bandMaskSchema,
  frameMaskSchema,
  outlineMaskSchema,
  brushMaskSchema,
  similarMaskSchema,
  cloudMaskSchema,
  depthMaskSchema,
  patternMaskSchema,
  pictureMaskSchema,
  sharedMaskSchema,
])
export type Mask = z.infer<typeof maskSchema>
export type MaskKind = Mask['kind']

/** All kinds of mask, in the order in which they are offered. */
export const maskDefinitions: readonly MaskDefinition<Mask>[] = [
  luminosityMaskKind,
  skyMaskKind,
  colourMaskKind,
  ellipseMaskKind,
  lineMaskKind,
  bandMaskKind,
  frameMaskKind,
  outlineMaskKind,
  brushMaskKind,
  similarMaskKind,
  cloudMaskKind,
  depthMaskKind,
  patternMaskKind,
  pictureMaskKind,
  sharedMaskKind,
]

/** @throws Error if there is no such kind */
export function maskDefinitionOf(kind: string): MaskDefinition<Mask> {
  const definition = maskDefinitions.find((candidate) => candidate.kind === kind)
  if (!definition) throw new Error(`There is no mask of the kind “${kind}”.`)
  return definition
}

/** The schema of one kind of mask, for making its controls. */
export function maskSchemaOf(kind: MaskKind): z.ZodObject {
  return optionFor(maskSchema, { kind })
}
