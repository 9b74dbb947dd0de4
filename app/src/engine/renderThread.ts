import jpegDecoder from '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm?url'
import jpegEncoder from '@cornerstonejs/codec-libjpeg-turbo-8bit/wasm?url'
import avifDecoder from '@jsquash/avif/codec/dec/avif_dec.wasm?url'
import png from '@jsquash/png/codec/pkg/squoosh_png_bg.wasm?url'
import colour from 'lcms-wasm/dist/lcms.wasm?url'
import raw from 'libraw-wasm/dist/libraw.wasm?url'
import avifEncoder from '@jsquash/avif/codec/enc/avif_enc.wasm?url'
import webpEncoder from '@jsquash/webp/codec/enc/webp_enc_simd.wasm?url'
import webpDecoder from '@jsquash/webp/codec/dec/webp_dec.wasm?url'
import { RenderWorker, wasmCodecs, type CodecName } from '@welkinar/core/worker'
import kernels from '@welkinar/kernels/kernels.wasm?url'
import { expose } from 'comlink'
import { browserCodecs } from './browserCodecs'

// One thread of the pool in the browser.

const modules: Record<CodecName, string> = {
  jpegDecoder,
  jpegEncoder,
  png,
  webpDecoder,
  webpEncoder,
  avifDecoder,
  avifEncoder,
  colour,
  raw,
}

const compile = (url: string): Promise<WebAssembly.Module> => WebAssembly.compileStreaming(fetch(url))

const codecs = browserCodecs(wasmCodecs((name) => compile(modules[name])))
expose(await RenderWorker.create(await compile(kernels), codecs))
postMessage('ready')
// Most photos are JPEGs; it can be ready before the first one comes.
codecs.decoderFor('jpeg').catch(() => undefined)
