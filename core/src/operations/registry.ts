import type { Operation } from '../graph/operation'
import { airlight } from './airlight/airlight'
import { brushMask } from './brushMask/brushMask'
import { clearAir } from './clearAir/clearAir'
import { cloudMask } from './cloudMask/cloudMask'
import { combineMasks } from './combineMasks/combineMasks'
import { constantTones } from './constantTones/constantTones'
import { discs } from './discs/discs'
import { distanceCurve } from './distanceCurve/distanceCurve'
import { fadeTones } from './fadeTones/fadeTones'
import { fieldAsMask } from './fieldAsMask/fieldAsMask'
import { contrastBetween } from './followEdges/followEdges'
import { gaussianBlur } from './gaussianBlur/gaussianBlur'
import { guidedFilter } from './guidedFilter/guidedFilter'
import { darkestChannel, distanceFromHaze } from './hazeDistance/hazeDistance'
import { holdMask } from './holdMask/holdMask'
import { hueMask } from './hueMask/hueMask'
import { levels } from './levels/levels'
import { litField } from './litField/litField'
import { litColours } from './litColours/litColours'
import { luminosityMask } from './luminosityMask/luminosityMask'
import { maskAsTones } from './maskAsTones/maskAsTones'
import { mirror } from './mirror/mirror'
import { mix } from './mix/mix'
import { joinFields, scaleField } from './joinFields/joinFields'
import { layerMix } from './mixLayer/layerMix'
import { mixLayer } from './mixLayer/mixLayer'
import { morphology } from './morphology/morphology'
import { motionBlur } from './motionBlur/motionBlur'
import { outlineMask } from './outlineMask/outlineMask'
import { photo } from './photo/photo'
import { place } from './place/place'
import { bandMask } from './shapeMasks/bandMask'
import { ellipseMask } from './shapeMasks/ellipseMask'
import { frameMask } from './shapeMasks/frameMask'
import { lineMask } from './shapeMasks/lineMask'
import { distanceAsTones, distanceFromCodes, distanceRange, groundDistance, layRegion } from './sceneDistance/sceneDistance'
import { sceneBrightness, sceneLight, tintInLight } from './sceneLight/sceneLight'
import { similarMask } from './similarMask/similarMask'
import { skyMask } from './skyMask/skyMask'
import { starColours, starLight, stars } from './stars/stars'
import { streaks } from './streaks/streaks'
import { stripes } from './stripes/stripes'
import { sumFields } from './sumFields/sumFields'
import { adjust } from './adjust/adjust'
import { balance } from './balance/balance'
import { brights, spreadLight } from './brights/brights'
import { bursts } from './burst/burst'
import { constantField } from './constantField/constantField'
import { curve } from './curve/curve'
import { difference } from './difference/difference'
import { lampField, litByLamp } from './lamp/lamp'
import { lightColours, lightField } from './lightOfTones/lightOfTones'
import { pathField } from './pathField/pathField'
import { polarWrap } from './polarWrap/polarWrap'
import { radialBlur } from './radialBlur/radialBlur'
import { ramp } from './ramp/ramp'
import { shafts } from './shafts/shafts'
import { towards } from './towards/towards'
import { turbulence } from './turbulence/turbulence'

/** All operations that a graph may hold, sources first. */
const operations: readonly Operation[] = [
  photo,
  constantTones,
  constantField,
  streaks,
  discs,
  starLight,
  stars,
  starColours,
  turbulence,
  bursts,
  stripes,
  shafts,
  lampField,
  pathField,
  distanceFromCodes,
  groundDistance,
  layRegion,
  darkestChannel,
  distanceFromHaze,
  distanceAsTones,
  airlight,
  distanceCurve,
  joinFields,
  scaleField,
  sceneLight,
  sceneBrightness,
  tintInLight,
  litField,
  litColours,
  sumFields,
  gaussianBlur,
  motionBlur,
  radialBlur,
  polarWrap,
  towards,
  difference,
  levels,
  curve,
  adjust,
  balance,
  ramp,
  brights,
  spreadLight,
  lightField,
  lightColours,
  litByLamp,
  place,
  mirror,
  luminosityMask,
  hueMask,
  ellipseMask,
  lineMask,
  bandMask,
  frameMask,
  outlineMask,
  brushMask,
  similarMask,
  skyMask,
  cloudMask,
  fieldAsMask,
  distanceRange,
  morphology,
  guidedFilter,
  contrastBetween,
  combineMasks,
  holdMask,
  maskAsTones,
  mix,
  clearAir,
  fadeTones,
  layerMix,
  mixLayer,
]

const byName = new Map(operations.map((operation) => [operation.name, operation]))

/** @throws Error if there is no operation of that name */
export function operationNamed(name: string): Operation {
  const operation = byName.get(name)
  if (!operation) throw new Error(`There is no operation named “${name}”.`)
  return operation
}
