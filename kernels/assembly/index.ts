export { allocate, release, fill, copyExtended, copyPart, atLeastZero } from './memory'
export { sine, cosine, errorFunction } from './math'
export { encodePlane, decodePlane } from './transfer'
export {
  planesFromRgba8, halveRgba8, planeFromU16, u16FromPlane, halvePlane, areaRows, areaEntryBytes, areaColumns,
  rgba8FromPlanes, rgba16FromPlanes, histogram,
} from './picture'
export {
  gaussianWeights, convolveColumns, convolveRows, halveColumns, halveRows, enlargeColumns, enlargeRows, convolveTaps,
} from './blur'
export { drawStreaks } from './streaks'
export { levels, addPlanes, placePlane, stripes, peakPlane, forkField, lineAtHalf } from './field'
export { tonePlane, maskCurve, combineMasks, holdMask } from './mask'
export { mix } from './mix'
export { ellipseMask, lineMask, frameMask, strokeSegment, layStroke } from './shape'
export { fillOutline } from './outline'
export { oklabPlanes, hueChromaMask, similarTo, throughMatrix } from './colour'
export { cloudMask } from './cloud'
export { boxMean, roundPlane, multiplyPlanes, guidedCoefficients, guidedResult, blendPlanes, contrastBetween } from './window'
export { discExtreme, squareExtreme } from './extreme'
export { fadePlane, layerMix } from './layer'
export { drawDiscs } from './discs'
export { coverByDrops, refractByDrops } from './drops'
export {
  distanceFromCodes, groundDistance, airlight, joinFields, scalePlane, darkestChannel, distanceFromHaze, layRegion, inversePlane, distanceSteps, distanceFromSteps, nearTo,
  clearAir, distanceCurve,
} from './air'
export { addGlow, litPlane, ownColour, tintPlane, luminancePlane } from './light'
export { turbulence } from './turbulence'
export { starCanvas, starHorizon } from './starShape'
export { drawStars, spreadFromSquares } from './stars'
export { skyMask } from './sky'
export { mirrorPlane } from './mirror'
export { interleave, takeChannel, meanAlong, towards, polarWrap, bendPlane } from './radial'
export { addBurst } from './burst'
export { drawShafts } from './shafts'
export {
  lightOfTones, uncover, brightsOf, adjustTones, litByLamp, throughTable, difference, balanceTones, lampField, softShoulder, encodedFromOklab, newlyClipped, gainByMask,
} from './tones'
export { filterRows } from './png'
export { vividOklab, unsharpTones, smoothNoise, smoothNoiseBytes, weightedSum, cubeColours } from './finish'
export { nonLocalMeans, lumaChroma, fromLumaChroma, mendDisc, placePlaneCubic } from './groundwork'
