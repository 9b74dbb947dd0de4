export { RenderWorker } from './renderWorker'
export type { CodecName, LoadCodec } from '../codecs/codecModules'
