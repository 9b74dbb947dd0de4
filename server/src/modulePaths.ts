import { createRequire } from 'node:module'
import type { CodecName } from '@welkinar/core/worker'

const require = createRequire(import.meta.url)

const codecs: Record<CodecName, string> = {
  jpegDecoder: '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm',
  jpegEncoder: '@cornerstonejs/codec-libjpeg-turbo-8bit/wasm',
  png: '@jsquash/png/codec/pkg/squoosh_png_bg.wasm',
  webpDecoder: '@jsquash/webp/codec/dec/webp_dec.wasm',
  webpEncoder: '@jsquash/webp/codec/enc/webp_enc_simd.wasm',
  avifEncoder: '@jsquash/avif/codec/enc/avif_enc.wasm',
  avifDecoder: '@jsquash/avif/codec/dec/avif_dec.wasm',
  colour: 'lcms-wasm/dist/lcms.wasm',
  raw: 'libraw-wasm/dist/libraw.wasm',
}

/** File of a codec's WebAssembly module. */
export function codecPath(name: CodecName): string {
  return require.resolve(codecs[name])
}

/** File of the kernels' WebAssembly module. */
export function kernelsPath(): string {
  return require.resolve('@welkinar/kernels/kernels.wasm')
}
