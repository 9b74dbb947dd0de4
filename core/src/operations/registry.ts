import type { Operation } from '../graph/operation'
import { combineMasks } from './combineMasks/combineMasks'
import { constantTones } from './constantTones/constantTones'
import { gaussianBlur } from './gaussianBlur/gaussianBlur'
import { holdMask } from './holdMask/holdMask'
import { levels } from './levels/levels'
import { luminosityMask } from './luminosityMask/luminosityMask'
import { maskAsTones } from './maskAsTones/maskAsTones'
import { mix } from './mix/mix'
import { motionBlur } from './motionBlur/motionBlur'
import { photo } from './photo/photo'
import { place } from './place/place'
import { streaks } from './streaks/streaks'
import { sumFields } from './sumFields/sumFields'

/** All operations that a graph may hold, sources first. */
const operations = [
  photo,
  constantTones,
  streaks,
  sumFields,
  gaussianBlur,
  motionBlur,
  levels,
  place,
  luminosityMask,
  combineMasks,
  holdMask,
  maskAsTones,
  mix,
] as unknown as readonly Operation[]

const byName = new Map(operations.map((operation) => [operation.name, operation]))

/** @throws Error if there is no operation of that name */
export function operationNamed(name: string): Operation {
  const operation = byName.get(name)
  if (!operation) throw new Error(`There is no operation named “${name}”.`)
  return operation
}
