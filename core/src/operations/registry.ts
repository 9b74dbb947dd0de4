import type { Operation, Operations } from '../graph/operation'
import { costPerPixel } from './costs'
import { airlight } from './distance/airlight/airlight'
import { brushMask } from './masks/brushMask/brushMask'
import { clearAir } from './distance/clearAir/clearAir'
import { cloudMask } from './masks/cloudMask/cloudMask'
import { combineMasks } from './masks/combineMasks/combineMasks'
import { constantTones } from './sources/constantTones/constantTones'
import { discs } from './sources/discs/discs'
import { distanceCurve } from './distance/distanceCurve/distanceCurve'
import { fadeTones } from './mixing/fadeTones/fadeTones'
import { fieldAsMask } from './fields/fieldAsMask/fieldAsMask'
import { contrastBetween } from './masks/followEdges/followEdges'
import { gaussianBlur } from './blurs/gaussianBlur/gaussianBlur'
import { guidedCoefficients, guidedFilter } from './blurs/guidedFilter/guidedFilter'
import { darkestChannel, distanceFromHaze } from './distance/hazeDistance/hazeDistance'
import { holdMask } from './masks/holdMask/holdMask'
import { hueMask } from './masks/hueMask/hueMask'
import { lensDrops, refraction } from './optics/lensDrops/lensDrops'
import { laidPicture } from './sources/laidPicture/laidPicture'
import { levels } from './fields/levels/levels'
import { luma } from './fields/luma/luma'
import { litField } from './light/litField/litField'
import { litColours } from './light/litColours/litColours'
import { luminosityMask } from './masks/luminosityMask/luminosityMask'
import { maskAsTones } from './masks/maskAsTones/maskAsTones'
import { gainByMask } from './colour/gainByMask/gainByMask'
import { newlyClipped } from './mixing/newlyClipped/newlyClipped'
import { mendSpots } from './groundwork/mendSpots/mendSpots'
import { takeNoise } from './groundwork/takeNoise/takeNoise'
import { mirror } from './geometry/mirror/mirror'
import { mix } from './mixing/mix/mix'
import { joinFields, scaleField } from './fields/joinFields/joinFields'
import { layerMix } from './mixing/mixLayer/layerMix'
import { mixLayer } from './mixing/mixLayer/mixLayer'
import { morphology } from './blurs/morphology/morphology'
import { motionBlur } from './blurs/motionBlur/motionBlur'
import { outlineMask } from './masks/outlineMask/outlineMask'
import { photo } from './sources/photo/photo'
import { place } from './geometry/place/place'
import { bandMask } from './masks/shapeMasks/bandMask'
import { ellipseMask } from './masks/shapeMasks/ellipseMask'
import { frameMask } from './masks/shapeMasks/frameMask'
import { lineMask } from './masks/shapeMasks/lineMask'
import { distanceAsTones, distanceFromCodes, distanceRange, groundDistance, layRegion } from './distance/sceneDistance/sceneDistance'
import { sceneBrightness, sceneLight, tintInLight } from './light/sceneLight/sceneLight'
import { similarMask } from './masks/similarMask/similarMask'
import { skyMask } from './masks/skyMask/skyMask'
import { starColours, starLight, stars } from './sources/stars/stars'
import { streaks } from './sources/streaks/streaks'
import { stripes } from './sources/stripes/stripes'
import { sumFields } from './fields/sumFields/sumFields'
import { adjust } from './colour/adjust/adjust'
import { balance } from './colour/balance/balance'
import { colourTable } from './colour/colourTable/colourTable'
import { joinChannels } from './colour/joinChannels/joinChannels'
import { unsharp } from './colour/unsharp/unsharp'
import { vivid } from './colour/vivid/vivid'
import { grainNoise, weightedSum } from './sources/grain/grain'
import { brights, spreadLight } from './light/brights/brights'
import { bursts } from './sources/burst/burst'
import { constantField } from './sources/constantField/constantField'
import { lineAtHalf } from './fields/lineAtHalf/lineAtHalf'
import { fork } from './fields/fork/fork'
import { curve } from './fields/curve/curve'
import { difference } from './fields/difference/difference'
import { lampField, litByLamp } from './light/lamp/lamp'
import { lightColours, lightField, uncovered } from './light/lightOfTones/lightOfTones'
import { pathField } from './sources/pathField/pathField'
import { distanceSteps, nearTo } from './distance/nearTo/nearTo'
import { distanceFromSteps, smallCodes } from './distance/readDistance/readDistance'
import { bend } from './geometry/bend/bend'
import { polarWrap, strip } from './geometry/polarWrap/polarWrap'
import { radialBlur } from './blurs/radialBlur/radialBlur'
import { inSpace } from './colour/inSpace/inSpace'
import { ramp } from './colour/ramp/ramp'
import { shafts } from './sources/shafts/shafts'
import { towards } from './geometry/towards/towards'
import { turbulence } from './sources/turbulence/turbulence'

/** All operations that a graph may hold, sources first. */
const all: readonly Operation[] = [
  grainNoise,
  weightedSum,
  vivid,
  unsharp,
  inSpace,
  joinChannels,
  colourTable,
  photo,
  constantTones,
  constantField,
  streaks,
  discs,
  laidPicture,
  lensDrops,
  refraction,
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
  strip,
  smallCodes,
  distanceFromSteps,
  distanceSteps,
  nearTo,
  towards,
  bend,
  fork,
  lineAtHalf,
  difference,
  luma,
  levels,
  curve,
  adjust,
  balance,
  ramp,
  brights,
  spreadLight,
  lightField,
  lightColours,
  uncovered,
  litByLamp,
  place,
  takeNoise,
  mendSpots,
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
  guidedCoefficients,
  guidedFilter,
  contrastBetween,
  combineMasks,
  holdMask,
  maskAsTones,
  mix,
  clearAir,
  newlyClipped,
  gainByMask,
  fadeTones,
  layerMix,
  mixLayer,
]

const byName = new Map(all.map((operation) => [operation.name, operation]))

/** What graphs are made of, as evaluator and planner are handed it. */
export const operations: Operations = {
  named(name) {
    const operation = byName.get(name)
    if (!operation) throw new Error(`There is no operation named “${name}”.`)
    return operation
  },
  costPerPixel,
}

/** The names of all operations. */
export const operationNames: readonly string[] = all.map(({ name }) => name)
