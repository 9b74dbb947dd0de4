import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import sharp from 'sharp'
import type { CodecName } from '../src/codecs/codecModules'
import { wasmCodecs, type Codecs } from '../src/codecs/codecs'
import type { DeflateBand } from '../src/codecs/formats/zlib'
import { BAND_ROWS, type EncodedBand, type FileFormat } from '../src/codecs/formats/fileFormat'
import { fileFormats, type ExportOptions } from '../src/codecs/formats/registry'
import { loadKernels } from './kernels'
import type { Size } from '../src/planes/grid'

const require = createRequire(import.meta.url)
const files: Record<CodecName, string> = {
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

/** The codecs of the browser, with another deflate. */
export const codecsWith = (deflate?: DeflateBand): Codecs =>
  wasmCodecs(async (name) => WebAssembly.compile(await readFile(require.resolve(files[name]))), deflate)

/** The codecs of the browser. */
export const testCodecs: Codecs = codecsWith()

/** The file of a picture (interleaved 8-bit RGBA), band by band. */
export async function fileOf(
  rgba: Uint8ClampedArray,
  { width, height }: Size,
  options: ExportOptions,
  codecs: Codecs = testCodecs,
  onBand: (band: EncodedBand) => void = () => undefined,
): Promise<Buffer> {
  const kernels = await loadKernels()
  const pixelBytes = options.depth / 2
  const bands = Array.from({ length: Math.ceil(height / BAND_ROWS) }, (_, index) => {
    const data = rgba.slice(index * BAND_ROWS * width * pixelBytes, (index + 1) * BAND_ROWS * width * pixelBytes)
    return codecs.encodeBand(
      { width, height: data.length / width / pixelBytes, depth: options.depth, data: new Uint8ClampedArray(data) },
      options,
      kernels,
    )
  })
  const written = await Promise.all(bands)
  const { asWhole } = fileFormats[options.format] as FileFormat
  const rows = written.flatMap(({ parts }) => parts)
  const encoded = asWhole ? [await codecs.encodeWhole(rows, { width, height }, options)] : written
  encoded.forEach(onBand)
  const file = await fileFormats[options.format].join(encoded, { width, height }, options)
  return Buffer.from(await file.arrayBuffer())
}

/** What an independent reader finds in a file of 16 bits: its sizes, its depth, and its interleaved RGBA as bytes. */
export async function deepPictureIn(
  file: Buffer,
): Promise<{ readonly is: readonly [number, number, string | undefined]; readonly data: Buffer }> {
  const { data, info } = await sharp(file, { failOn: 'warning', ignoreIcc: true })
    .toColourspace('rgb16')
    .ensureAlpha()
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true })
  return { is: [info.width, info.height, (await sharp(file).metadata()).depth], data }
}
