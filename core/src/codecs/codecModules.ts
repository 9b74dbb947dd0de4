/** The WebAssembly codecs, and the engine that converts colours; each platform knows where their files lie. */
export type CodecName =
  | 'jpegDecoder'
  | 'jpegEncoder'
  | 'png'
  | 'webpDecoder'
  | 'webpEncoder'
  | 'avifDecoder'
  | 'avifEncoder'
  | 'colour'
  | 'raw'

/** Loads and compiles the module of one codec. */
export type LoadCodec = (name: CodecName) => Promise<WebAssembly.Module>
