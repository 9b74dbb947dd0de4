export { rgbFromHex, hexFromRgb, type Rgb } from './colour/hex'
export { exportFormats, type ExportFormat, type ExportOptions } from './codecs/encodePicture'
export type { CodecName, LoadCodec } from './codecs/codecModules'
export { newEffect } from './effects/newEffect'
export { definitionOf, effectDefinitions, effectSchema, type Effect } from './effects/registry'
export type { EffectDefinition } from './effects/effectDefinition'
export type { GraphNode } from './graph/node'
export { HISTOGRAM_BINS } from './measure/measurements'
export { controlOf, hardRange, schemaAt, type NumberControl } from './model/controls'
export {
  depthPlaces,
  luminosityMaskSchema,
  mixSchema,
  whereSchema,
  type DepthPlace,
  type LuminosityMask,
  type Mask,
  type Mix,
  type Where,
} from './model/look'
export { effectsFor, parseRecipe, RECIPE_VERSION, type Recipe } from './model/recipe'
export { sceneSchema, SCENE_VERSION, type PhotoReference, type Scene } from './model/scene'
export { maskCurve } from './masks/maskCurve'
export { UserProblem } from './model/userProblem'
export { maskJoins, type MaskJoin } from './operations/combineMasks/combineMasks'
export { toneChannels, toneCurves, type ToneChannel, type ToneCurve, type ToneHandles } from './operations/luminosityMask/luminosityMask'
export { mixModes, type MixMode } from './operations/mix/mixModes'
export { gridAt, gridBounds, regionOnGrid, type Grid, type Size } from './planes/grid'
export type { Rect } from './planes/rect'
export { sceneGraph, stepNames, type Look, type PictureSource, type StepName } from './render/sceneGraph'
