export { allocate, release, fill, copyExtended } from './memory'
export { sine, cosine, errorFunction } from './math'
export { encodePlane, decodePlane } from './transfer'
export {
  planesFromRgba8, halveRgba8, planeFromU16, u16FromPlane, halvePlane, areaRows, areaEntryBytes, areaColumns,
  rgba8FromPlanes, histogram,
} from './picture'
export {
  gaussianWeights, convolveColumns, convolveRows, halveColumns, halveRows, enlargeColumns, enlargeRows, convolveTaps,
} from './blur'
export { drawStreaks } from './streaks'
export { levels, addPlanes, placePlane } from './field'
export { tonePlane, maskCurve, combineMasks, holdMask } from './mask'
export { mix } from './mix'
