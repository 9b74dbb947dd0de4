export { hueOf } from './colour/hueOf'
export { lightnessOf } from './colour/lightness'
export { temperatureInWords } from './colour/temperature'
export { encodedOf, rgbFromHex, hexFromRgb, linearOf, type Rgb } from './colour/hex'
export { exifProblem, sizeProblem } from './codecs/formats/limits'
export { exifFor } from './codecs/exif/exifFor'
export { exifOf, sizeOfFile } from './codecs/header/readHeader'
export { allColourSpaces, colourSpaces, linearIn, type ColourSpace } from './colour/colourSpace'
export { exportFormats, fileFormats, formatOfName, type ExportFormat, type ExportOptions } from './codecs/formats/registry'
export type { CodecName, LoadCodec } from './codecs/codecModules'
export type { BitDepth } from './render/renderTile'
export { readCube } from './model/cubeFile'
export { colourTableOf, colourTableSchema, type ColourTable } from './model/colourTable'
export { balanceForGrey } from './effects/adjust/whiteBalance'
export { lookOf, nameOfEffect, ownColoursOf } from './effects/effectName'
export { newEffect } from './effects/newEffect'
export { curveTable } from './operations/fields/curve/curveTable'
export { decorrelated } from './effects/decorrelate'
export { wearLook } from './effects/wearLook'
export { definitionOf, effectDefinitions, effectSchema, type Effect, type EffectKind } from './effects/registry'
export {
  AMOUNT_PATH,
  looksOf,
  NEUTRAL,
  pulledControls,
  type EffectDefinition,
  type EffectFamily,
  type EffectPlace,
} from './effects/effectDefinition'
export type { GraphNode } from './graph/node'
export { HISTOGRAM_BINS } from './measure/measurements'
export {
  choiceOf,
  colourLabelOf,
  controlOf,
  isFollowing,
  limitsOf,
  nearestNumber,
  numberProblem,
  schemaAt,
  type ChoiceControl,
  type NumberControl,
  type NumberLimits,
} from './model/controls'
export {
  balanceSchema,
  colourSchema,
  depthPlaces,
  groupSchema,
  mixSchema,
  rampStopSchema,
  whereSchema,
  type Balance,
  type DepthPlace,
  type Group,
  type Mix,
  type Ramp,
  type Where,
} from './model/look'
export { groundworkFor, marksFor, parseMarks, type MarksFile } from './model/marksFile'
export { layRecipe, parseRecipe, picturesOfStack, recipeFrom, stackFor, stackWithout, type Recipe } from './model/recipe'
export { checkedAfter, checkedScene, Refusal, type ChangedPath, type CheckedScene } from './model/checked'
export { mend, type Mended } from './model/mend'
export { listLimit, rolesOf } from './model/roles'
export { effectOfNode } from './render/effectOfNode'
export { withIdsReplaced, type SharedMask } from './model/stack'
export { emptyStack, fitStack, withNewIds, type PinnedState, type Stack } from './model/stack'
export { upgradeDocument, upgradePart } from './model/upgrade'
export { ageOf, documentVersion, type Age } from './model/version'
export { isTooDeep } from './model/nesting'
export { depthSchema, type DepthPicture } from './model/depth'
export { levelSchema, type LevelMark } from './model/level'
export { nothingRead, notRead, type Reading, type SmallCodes } from './model/reading'
export { bytesFrom, NOT_READ } from './model/readingMethod'
export type { OutlineCorner } from './model/corner'
export { within180 } from './model/degrees'
export { readPath, readWord, writePath } from './model/paths'
export { coloursThatCount } from './render/coloursThatCount'
export { cropScene } from './render/cropScene'
export { adjustControls, appliesToAdjusted, noAdjustment, type AdjustControls } from './effects/adjust/adjusted'
export {
  frameOf,
  isWithin,
  largestCrop,
  middleOf,
  photoPlaceOf,
  showsAll,
  towards,
  turnedCrop,
  turnedPlaceOf,
  turnForLine,
  type Frame,
} from './model/frame'
export {
  cropSchema,
  noGroundwork,
  noiseSchema,
  repairSchema,
  type Crop,
  type Groundwork,
  type NoiseControls,
  type Repair,
} from './model/groundwork'
export type { Watchpoint } from './model/watchpoint'
export { unsharpNode } from './operations/colour/unsharp/unsharp'
export { startingTone } from './render/groundworkNode'
export { colourTableNode } from './operations/colour/colourTable/colourTable'
export { frameOfSource, framedGraph, turnedInFrame } from './render/framedGraph'
export { fitBetween } from './model/lengths'
export { spanOf } from './model/span'
export { halvesOf, movedBy, pulledAbout, turnedAbout, type BoxScene, type PatternBox, type Placed } from './model/patternBox'
export {
  FOCAL_POINT,
  groundSchema,
  hazeMarkSchema,
  horizonOf,
  waterlineOf,
  lightOf,
  lightSchema,
  markedPoint,
  noMarks,
  regionSchema,
  type LightMark,
  type RegionMark,
  type SceneMarks,
} from './model/marks'
export { picturesOfScene, sceneSchema, sceneWithout, untouched, type PhotoReference, type Scene } from './model/scene'
export { bandLine, type BandMask } from './masks/band/definition'
export { guidesAlong, placesAlong } from './masks/brush/guides'
export {
  brushControls,
  toleranceControl,
  MOST_STROKE_POINTS,
  TOLERANCE,
  pressureUses,
  type BrushMask,
  type BrushStroke,
} from './masks/brush/definition'
export type { ColourMask } from './masks/colour/definition'
export { ellipseCentre, type EllipseMask } from './masks/ellipse/definition'
export type { SharedMaskReference } from './masks/shared/definition'
export type { FrameMask } from './masks/frame/definition'
export { lineEnds, type LineMask } from './masks/line/definition'
export { luminosityMaskSchema, type LuminosityMask } from './masks/luminosity/definition'
export { maskCurve } from './masks/luminosity/maskCurve'
export type { MaskContext } from './masks/maskDefinition'
export { newMask } from './masks/newMask'
export type { CloudMask } from './masks/cloud/definition'
export type { DepthMask } from './masks/depth/definition'
export type { PatternMask } from './masks/pattern/definition'
export type { OutlineMask, OutlinePath } from './masks/outline/definition'
export type { PictureMask, PictureReference } from './masks/picture/definition'
export { maskDefinitionOf, maskDefinitions, maskSchemaOf, type Mask, type MaskKind } from './masks/registry'
export type { SimilarMask } from './masks/similar/definition'
export { tonesOf } from './masks/tonesFrom'
export { maskProblem } from './masks/whereNode'
export { UserProblem } from './model/userProblem'
export { cutOutId, fileIdOf, inColourId, reducedId, spaceOfId, wideId, workingSpaceOf } from './photo/pictureIds'
export { maskJoins, type MaskJoin } from './operations/masks/combineMasks/combineMasks'
export {
  toneChannels,
  toneCurves,
  type ToneChannel,
  type ToneCurve,
  type ToneHandles,
} from './operations/masks/luminosityMask/luminosityMask'
export { PICTURED_FROM, PICTURED_TO } from './operations/distance/sceneDistance/sceneDistance'
export { knowsDistance } from './render/sceneDepth'
export { mixModes, modeLabels, type MixMode } from './operations/mixing/mix/mixModes'
export { gridAt, gridBounds, regionOnGrid, type Grid, type Size } from './planes/grid'
export { contains, expand, intersect, outside, sameRect, tilesAround, union, type Rect } from './planes/rect'
export { colourOf, findOwner, insideOfGroup, isEffect, ownerOf, type Owner, type PictureSource } from './render/pictureSource'
export { fieldOperations, newFieldStep, type FieldStep } from './effects/customField/fieldOperations'
export type { CustomFieldControls } from './effects/customField/definition'
export type { SparkleControls } from './effects/sparkles/definition'
export type { GlowLineControls } from './effects/glowLine/definition'
export { FIRST_LIGHT } from './effects/origin'
export { maskIn, maskList, sameMaskList, sharedMaskOf, withMaskList, type MaskListRef } from './render/maskLists'
export { effectsBeneath } from './render/pictureSource'
export { spreadOf } from './render/spread'
export { EXAGGERATION, maskContext, sceneGraph, stepNames, type Look, type StepName } from './render/sceneGraph'
export { usesReading } from './render/usesReading'
export { outputOf, type OutputSize, type PictureOutput } from './render/pictureOutput'
