export { RenderWorker } from './renderWorker'
export type { CodecName, LoadCodec } from '../codecs/codecModules'
export { wasmCodecs, type Codecs } from '../codecs/codecs'
export { FULL_COLOUR_FROM } from '../codecs/fullColour'
